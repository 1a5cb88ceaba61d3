package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class PortIdTest {
    @Test
    void everyKindHasItsOwnText() {
        assertThat(PortId.parse("stand-in:larkspur")).isEqualTo(new PortId.StandIn("larkspur"));
        assertThat(PortId.parse("midi:Larkspur 73, (2)")).isEqualTo(new PortId.Machine("Larkspur 73, (2)"));
        assertThat(PortId.parse("program:sorrel")).isEqualTo(new PortId.Program("sorrel"));
        assertThat(PortId.parse("program-transport")).isEqualTo(new PortId.SharedTransport());
        assertThat(PortId.parse("keys")).isEqualTo(new PortId.Unknown("keys"));
        assertThat(PortId.parse("")).isEqualTo(new PortId.Unknown(""));
    }

    @Property(tries = 200)
    void textsAreReadBack(@ForAll String name) {
        for (PortId id : new PortId[] {
            new PortId.StandIn(name), new PortId.Machine(name), new PortId.Program(name), PortId.parse(name)
        }) {
            assertThat(PortId.parse(id.text())).isEqualTo(id);
        }
        assertThat(PortId.parse(name).text()).isEqualTo(name);
    }
}
