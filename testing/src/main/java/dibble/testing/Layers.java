package dibble.testing;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAnyPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideOutsideOfPackage;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.core.importer.Location;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.CompositeArchRule;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/** Rules about which packages may depend on which. */
public final class Layers {
    private Layers() {}

    /** Leaves out what only tests use. */
    public static final class WithoutTesting implements ImportOption {
        @Override
        public boolean includes(Location location) {
            return !location.contains("/dibble/testing/");
        }
    }

    /**
     * Returns the rule that packages depend on nothing of the application but what a table allows. A package without a class
     * breaks the rule, too.
     *
     * @param table a line for each package: its name, a colon, and the names of the packages that it may depend on, separated
     *     by spaces
     */
    public static ArchRule of(String table) {
        List<ArchRule> rules =
                table.lines().filter(line -> !line.isBlank()).map(Layers::rule).toList();
        return CompositeArchRule.of(rules);
    }

    private static ArchRule rule(String line) {
        String[] parts = line.split(":", -1);
        String[] allowed = Stream.concat(Stream.of(parts[0]), Arrays.stream(parts[1].split(" ")))
                .filter(name -> !name.isBlank())
                .map(name -> "dibble." + name.strip())
                .toArray(String[]::new);
        return classes()
                .that()
                .resideInAPackage(allowed[0])
                .should()
                .onlyDependOnClassesThat(resideOutsideOfPackage("dibble..").or(resideInAnyPackage(allowed)));
    }
}
