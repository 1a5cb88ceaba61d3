package dibble.programs;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.session.Connection;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Cables as somebody with another program makes, pulls and loses them. */
class CablesTest {
    private static final Connection CABLE = new Connection("in/keys", "lark:out");
    private static final Set<String> OWN = Set.of("in/keys");
    private static final Set<String> THERE = Set.of("lark:out", "wren:in");

    private final Cables cables = new Cables();

    @BeforeEach
    void wantOne() {
        cables.want(Set.of(CABLE));
    }

    @Test
    void oneThatIsWantedIsMadeOnceBothEndsAreThere() {
        assertThat(cables.look(Set.of(), OWN, Set.of()).missing()).containsExactly(CABLE);
        assertThat(cables.look(Set.of(), Set.of(), THERE)).satisfies(look -> {
            assertThat(look.toMake()).isEmpty();
            assertThat(look.missing()).isEmpty();
            assertThat(look.wanted()).containsExactly(CABLE);
        });
        assertThat(cables.look(Set.of(), OWN, THERE).toMake()).containsExactly(CABLE);
        assertThat(cables.look(Set.of(CABLE), OWN, THERE).toMake()).isEmpty();
    }

    @Test
    void oneThatWasMadeElsewhereIsKept() {
        Connection other = new Connection("in/keys", "wren:in");
        assertThat(cables.look(Set.of(CABLE, other), OWN, THERE).wanted()).containsExactly(CABLE, other);
    }

    @Test
    void oneThatIsPulledElsewhereIsLetGo() {
        cables.look(Set.of(CABLE), OWN, THERE);
        assertThat(cables.look(Set.of(), OWN, THERE).wanted()).containsExactly(CABLE);
        assertThat(cables.look(Set.of(), OWN, THERE)).satisfies(look -> {
            assertThat(look.wanted()).isEmpty();
            assertThat(look.toMake()).isEmpty();
        });
    }

    /** A program that ends loses its cables before its ports. */
    @Test
    void oneWhoseProgramEndsIsMadeAgainWhenItIsBack() {
        cables.look(Set.of(CABLE), OWN, THERE);
        cables.look(Set.of(), OWN, THERE);
        assertThat(cables.look(Set.of(), OWN, Set.of()).missing()).containsExactly(CABLE);
        assertThat(cables.look(Set.of(), OWN, THERE).toMake()).containsExactly(CABLE);
    }

    @Test
    void allAreMadeAgainAfterTheServerWasGone() {
        cables.look(Set.of(CABLE), OWN, THERE);
        cables.look(Set.of(), Set.of(), Set.of());
        assertThat(cables.look(Set.of(), OWN, THERE).toMake()).containsExactly(CABLE);
    }

    @Test
    void anotherSessionHasItsOwn() {
        cables.look(Set.of(CABLE), OWN, THERE);
        cables.want(Set.of());
        assertThat(cables.look(Set.of(), OWN, THERE).wanted()).isEmpty();
    }
}
