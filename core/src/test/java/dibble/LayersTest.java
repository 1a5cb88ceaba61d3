package dibble;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTag;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The core has values and functions only, and its packages depend on each other in one direction. */
@ArchTag("slow")
@AnalyzeClasses(
        packages = {"dibble"},
        importOptions = ImportOption.DoNotIncludeTests.class)
class LayersTest {
    @ArchTest
    static final ArchRule DIRECTIONS = layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
            .layer("text")
            .definedBy("dibble.text")
            .layer("work")
            .definedBy("dibble.work")
            .layer("midi")
            .definedBy("dibble.midi")
            .layer("time")
            .definedBy("dibble.time")
            .layer("gear")
            .definedBy("dibble.gear")
            .layer("routing")
            .definedBy("dibble.routing")
            .layer("recording")
            .definedBy("dibble.recording")
            .layer("notes")
            .definedBy("dibble.notes")
            .layer("session")
            .definedBy("dibble.session")
            .layer("edits")
            .definedBy("dibble.edits")
            .layer("files")
            .definedBy("dibble.files")
            .layer("checks")
            .definedBy("dibble.checks")
            .layer("demo")
            .definedBy("dibble.demo")
            .whereLayer("text")
            .mayNotAccessAnyLayer()
            .whereLayer("work")
            .mayNotAccessAnyLayer()
            .whereLayer("midi")
            .mayOnlyAccessLayers("text")
            .whereLayer("time")
            .mayOnlyAccessLayers("text")
            .whereLayer("gear")
            .mayOnlyAccessLayers("text", "midi")
            .whereLayer("routing")
            .mayOnlyAccessLayers("text", "midi", "gear")
            .whereLayer("recording")
            .mayOnlyAccessLayers("text", "work", "midi", "time", "gear", "routing")
            .whereLayer("notes")
            .mayOnlyAccessLayers("text", "midi", "time", "recording")
            .whereLayer("session")
            .mayOnlyAccessLayers("text", "midi", "time", "gear", "routing", "recording")
            .whereLayer("edits")
            .mayOnlyAccessLayers("text", "work", "midi", "time", "gear", "routing", "recording", "notes", "session")
            .whereLayer("files")
            .mayOnlyAccessLayers("text", "work", "midi", "time", "gear", "routing", "recording", "session", "edits")
            .whereLayer("checks")
            .mayOnlyAccessLayers("text", "midi", "gear", "routing", "recording", "session", "edits")
            .whereLayer("demo")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording", "session", "edits");

    @ArchTest
    static final ArchRule NO_CYCLES = slices().matching("dibble.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule NO_INTERFACE_CODE =
            noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx..", "java.awt..", "javax.swing..");

    @ArchTest
    static final ArchRule NO_THREADS = noClasses()
            .should()
            .callConstructor(Thread.class)
            .orShould()
            .dependOnClassesThat()
            .areAssignableTo(java.util.concurrent.Executor.class)
            .orShould()
            .dependOnClassesThat()
            .areAssignableTo(Thread.class);

    @ArchTest
    static final ArchRule NO_DEVICES =
            noClasses().should().dependOnClassesThat().resideInAPackage("javax.sound..");

    @ArchTest
    static final ArchRule NO_CLOCK_OF_ITS_OWN = noClasses()
            .should()
            .callMethod(System.class, "nanoTime")
            .orShould()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(java.time.Instant.class, "now");
}
