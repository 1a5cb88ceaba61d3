package dibble;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTag;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Holds the directions of docs/architecture.md. */
@ArchTag("slow")
@AnalyzeClasses(packages = "dibble", importOptions = ImportOption.DoNotIncludeTests.class)
class LayersTest {
    @ArchTest
    static final ArchRule DIRECTIONS = layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
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
            .layer("ports")
            .definedBy("dibble.ports")
            .layer("transport")
            .definedBy("dibble.transport")
            .layer("standins")
            .definedBy("dibble.standins")
            .layer("session")
            .definedBy("dibble.session")
            .layer("edits")
            .definedBy("dibble.edits")
            .layer("files")
            .definedBy("dibble.files")
            .layer("checks")
            .definedBy("dibble.checks")
            .layer("user")
            .definedBy("dibble.user")
            .layer("levels")
            .definedBy("dibble.levels")
            .layer("programs")
            .definedBy("dibble.programs")
            .layer("sheet")
            .definedBy("dibble.sheet")
            .layer("studio")
            .definedBy("dibble.studio")
            .layer("demo")
            .definedBy("dibble.demo")
            .whereLayer("work")
            .mayNotAccessAnyLayer()
            .whereLayer("midi")
            .mayNotAccessAnyLayer()
            .whereLayer("time")
            .mayNotAccessAnyLayer()
            .whereLayer("gear")
            .mayOnlyAccessLayers("midi")
            .whereLayer("routing")
            .mayOnlyAccessLayers("midi", "gear")
            .whereLayer("recording")
            .mayOnlyAccessLayers("work", "midi", "time", "gear", "routing")
            .whereLayer("notes")
            .mayOnlyAccessLayers("midi", "time", "recording")
            .whereLayer("ports")
            .mayOnlyAccessLayers("midi", "time")
            .whereLayer("transport")
            .mayOnlyAccessLayers("midi", "time", "recording", "ports")
            .whereLayer("standins")
            .mayOnlyAccessLayers("midi", "time", "ports", "transport")
            .whereLayer("session")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording")
            .whereLayer("sheet")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording", "session")
            .whereLayer("levels")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording", "transport", "session")
            .whereLayer("programs")
            .mayOnlyAccessLayers("midi", "gear", "routing", "recording", "session", "levels")
            .whereLayer("edits")
            .mayOnlyAccessLayers("work", "midi", "time", "gear", "routing", "recording", "notes", "session")
            .whereLayer("files")
            .mayOnlyAccessLayers("work", "midi", "time", "gear", "routing", "recording", "session", "edits")
            .whereLayer("checks")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording", "session", "edits")
            .whereLayer("user")
            .mayOnlyAccessLayers("midi", "gear", "session", "files")
            .whereLayer("studio")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("demo")
            .mayOnlyAccessLayers("midi", "time", "gear", "routing", "recording", "session", "edits");

    @ArchTest
    static final ArchRule NO_CYCLES = slices().matching("dibble.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule NO_INTERFACE_CODE =
            noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx..", "java.awt..", "javax.swing..");

    @ArchTest
    static final ArchRule THE_JDKS_MIDI_STAYS_IN_PORTS = noClasses()
            .that()
            .resideOutsideOfPackage("dibble.ports")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javax.sound.midi..");

    @ArchTest
    static final ArchRule ONE_CLOCK =
            noClasses().that().resideOutsideOfPackage("dibble.time").should().callMethod(System.class, "nanoTime");
}
