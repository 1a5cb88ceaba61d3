package dibble;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTag;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The packages that live depend on each other in one direction, and on the core. */
@ArchTag("slow")
@AnalyzeClasses(
        packages = {"dibble"},
        importOptions = ImportOption.DoNotIncludeTests.class)
class RuntimeLayersTest {
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
            .layer("system")
            .definedBy("dibble.system")
            .layer("ports")
            .definedBy("dibble.ports")
            .layer("transport")
            .definedBy("dibble.transport")
            .layer("standins")
            .definedBy("dibble.standins")
            .layer("levels")
            .definedBy("dibble.levels")
            .layer("programs")
            .definedBy("dibble.programs")
            .layer("disk")
            .definedBy("dibble.disk")
            .layer("journals")
            .definedBy("dibble.journals")
            .layer("user")
            .definedBy("dibble.user")
            .layer("studio")
            .definedBy("dibble.studio")
            .whereLayer("system")
            .mayNotAccessAnyLayer()
            .whereLayer("ports")
            .mayOnlyAccessLayers("text", "midi", "time")
            .whereLayer("transport")
            .mayOnlyAccessLayers("text", "midi", "time", "recording", "ports")
            .whereLayer("standins")
            .mayOnlyAccessLayers("text", "midi", "time", "ports", "transport")
            .whereLayer("levels")
            .mayOnlyAccessLayers("text", "midi", "time", "gear", "routing", "recording", "transport", "session")
            .whereLayer("programs")
            .mayOnlyAccessLayers("text", "midi", "gear", "routing", "recording", "session", "levels")
            .whereLayer("disk")
            .mayOnlyAccessLayers("text", "work", "midi", "recording", "session", "files", "system")
            .whereLayer("journals")
            .mayOnlyAccessLayers(
                    "text", "work", "midi", "time", "gear", "recording", "session", "edits", "files", "system", "disk")
            .whereLayer("user")
            .mayOnlyAccessLayers("text", "midi", "gear", "session", "files", "disk")
            .whereLayer("studio")
            .mayOnlyAccessLayers(
                    "text",
                    "work",
                    "midi",
                    "time",
                    "gear",
                    "routing",
                    "recording",
                    "notes",
                    "session",
                    "edits",
                    "files",
                    "checks",
                    "demo",
                    "system",
                    "ports",
                    "transport",
                    "disk",
                    "journals");

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
