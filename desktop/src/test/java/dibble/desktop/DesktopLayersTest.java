package dibble.desktop;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import javafx.application.Platform;

/** Views do not know each other, and event threads never post to the interface. */
@AnalyzeClasses(packages = "dibble.desktop", importOptions = ImportOption.DoNotIncludeTests.class)
class DesktopLayersTest {
    @ArchTest
    static final ArchRule NO_CYCLES =
            slices().matching("dibble.desktop.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule VIEWS_DO_NOT_IMPORT_EACH_OTHER = slices().matching("dibble.desktop.(*)..")
            .should()
            .notDependOnEachOther()
            .ignoreDependency(
                    DescribedPredicate.alwaysTrue(), JavaClass.Predicates.resideInAPackage("dibble.desktop.ui"))
            .ignoreDependency(
                    JavaClass.Predicates.resideInAPackage("dibble.desktop.app"), DescribedPredicate.alwaysTrue());

    /** References to the method count as well as calls. */
    @ArchTest
    static final ArchRule NOBODY_ELSE_POSTS_TO_THE_INTERFACE = noClasses()
            .that()
            .doNotHaveSimpleName("FrameTimer")
            .and()
            .doNotHaveSimpleName("Workbench")
            .should()
            .accessTargetWhere(DescribedPredicate.describe(
                    "Platform.runLater",
                    access -> access.getTarget().getOwner().isEquivalentTo(Platform.class)
                            && access.getTarget().getName().equals("runLater")));
}
