package dibble;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTag;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import dibble.testing.Layers;

/** The core has values and functions only, and its packages depend on each other in one direction. */
@ArchTag("slow")
@AnalyzeClasses(
        packages = {"dibble"},
        importOptions = {ImportOption.DoNotIncludeTests.class, Layers.WithoutTesting.class})
class LayersTest {
    @ArchTest
    static final ArchRule DIRECTIONS = Layers.of("""
            text:
            work:
            midi: text
            time: text
            gear: text midi
            routing: text midi gear
            recording: text work midi time gear routing
            notes: text midi time recording
            session: text midi time gear routing recording
            edits: text work midi time gear routing recording notes session
            files: text work midi time gear routing recording session edits
            checks: text midi gear routing recording session edits
            demo: midi time gear routing recording session edits
            """);

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
