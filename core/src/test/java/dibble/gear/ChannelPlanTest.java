package dibble.gear;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.Range;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ChannelPlanTest {
    private static Part part(String id, Integer channel) {
        return Part.of(id, id, channel, 0, Range.ALL, 1);
    }

    private static Instrument instrument(String id, String port, Part... parts) {
        return Instrument.of(id, id, true, port, List.of(parts));
    }

    private static int at(ChannelPlan plan, String instrument, String part) {
        return plan.channel(new PartRef(instrument, part)).orElse(0);
    }

    @Test
    void fixedComeFirstThenDrumsOnTenThenTheLowestFree() {
        ChannelPlan plan = ChannelPlan.of(
                List.of(
                        instrument(
                                "i",
                                "p",
                                part("auto", null),
                                part("drums", null).asDrums(),
                                part("more", null)),
                        instrument("j", "p", part("one", 1))),
                Map.of());
        assertThat(at(plan, "j", "one")).isEqualTo(1);
        assertThat(at(plan, "i", "auto")).isEqualTo(2);
        assertThat(at(plan, "i", "drums")).isEqualTo(10);
        assertThat(at(plan, "i", "more")).isEqualTo(3);
    }

    @Test
    void whatIsKeptStaysUnlessAFixedPartTakesIt() {
        Instrument before = instrument("i", "p", part("a", null), part("b", null));
        Map<PartRef, Integer> now = ChannelPlan.of(List.of(before), Map.of()).channels();
        Instrument after = instrument("i", "p", part("new", null), part("a", null), part("b", null), part("c", 2));
        ChannelPlan plan = ChannelPlan.of(List.of(after), now);
        assertThat(at(plan, "i", "a")).isEqualTo(1);
        assertThat(at(plan, "i", "new")).isEqualTo(3);
        assertThat(at(plan, "i", "b")).isEqualTo(4);
    }

    @Test
    void withNoChannelLeftThePartHasNone() {
        Part[] parts = new Part[17];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = part("p" + i, null);
        }
        ChannelPlan plan = ChannelPlan.of(List.of(instrument("i", "p", parts)), Map.of());
        assertThat(plan.channels()).hasSize(15).doesNotContainValue(10);
        assertThat(plan.channel(new PartRef("i", "p15"))).isEmpty();
    }

    @Property
    void plannedAgainNothingMovesAndAutosNeverClash(@ForAll long seed) {
        Random random = new Random(seed);
        List<Instrument> instruments = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Part[] parts = new Part[random.nextInt(9)];
            for (int p = 0; p < parts.length; p++) {
                parts[p] = part("p" + p, random.nextInt(3) == 0 ? (Integer) (1 + random.nextInt(16)) : null);
            }
            instruments.add(instrument("i" + i, "port" + random.nextInt(2), parts));
        }
        ChannelPlan plan = ChannelPlan.of(instruments, Map.of());
        assertThat(ChannelPlan.of(instruments, plan.channels()).channels()).isEqualTo(plan.channels());
        Set<String> autos = new HashSet<>();
        for (Instrument instrument : instruments) {
            for (Part part : instrument.parts()) {
                if (part.channel() == null && plan.channel(instrument.ref(part)).isPresent()) {
                    String address = instrument.port()
                            + plan.channel(instrument.ref(part)).getAsInt();
                    assertThat(autos.add(address)).isTrue();
                }
            }
        }
    }
}
