package dibble.desktop;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

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
                    com.tngtech.archunit.base.DescribedPredicate.alwaysTrue(),
                    com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage("dibble.desktop.ui"))
            .ignoreDependency(
                    com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage("dibble.desktop.app"),
                    com.tngtech.archunit.base.DescribedPredicate.alwaysTrue());

    @ArchTest
    static final ArchRule NOBODY_ELSE_POSTS_TO_THE_INTERFACE = noClasses()
            .that()
            .doNotHaveSimpleName("Pulse")
            .should()
            .callMethod(javafx.application.Platform.class, "runLater", Runnable.class);
}
