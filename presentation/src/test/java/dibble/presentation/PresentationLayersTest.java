package dibble.presentation;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** Presenters do not know each other, and nothing here knows a toolkit. */
@AnalyzeClasses(packages = "dibble.presentation", importOptions = ImportOption.DoNotIncludeTests.class)
class PresentationLayersTest {
    @ArchTest
    static final ArchRule NO_CYCLES =
            slices().matching("dibble.presentation.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule WHAT_ALL_SHARE_KNOWS_NO_VIEW = noClasses()
            .that()
            .resideInAPackage("dibble.presentation")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("dibble.presentation.*");

    @ArchTest
    static final ArchRule NO_TOOLKIT =
            noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx..", "java.awt..", "javax.swing..");
}
