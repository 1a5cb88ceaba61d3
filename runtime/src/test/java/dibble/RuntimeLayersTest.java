package dibble;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTag;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import dibble.testing.Layers;

/** The packages that live depend on each other in one direction, and on the core. */
@ArchTag("slow")
@AnalyzeClasses(
        packages = {"dibble"},
        importOptions = {ImportOption.DoNotIncludeTests.class, Layers.WithoutTesting.class})
class RuntimeLayersTest {
    @ArchTest
    static final ArchRule DIRECTIONS = Layers.of("""
            system:
            ports: text midi time
            transport: text midi time recording ports
            standins: text midi time ports transport
            levels: text midi time gear routing recording transport session
            programs: text midi gear routing recording session files levels
            disk: text work midi recording session files system
            journals: text work midi time gear recording session edits files system disk
            user: text midi gear session files disk
            studio: text work midi time gear routing recording notes session edits files checks system ports transport disk journals
            """);

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
