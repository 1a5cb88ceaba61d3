package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class ObservableTest {
    private final List<Object> heard = new ArrayList<>();

    @Test
    void aListenerHearsEachOtherValueUntilItsSubscriptionEnds() {
        Observable<String> value = new Observable<>("a");
        Subscription later = value.listen(heard::add);
        Subscription atOnce = value.follow(it -> heard.add("now " + it));
        value.set("a");
        value.set("b");
        atOnce.and(later).unsubscribe();
        value.set(null);
        assertThat(heard).containsExactly("now a", "b", "now b");
        assertThat(value.get()).isNull();
    }

    @Test
    void aListenerCanEndAnotherWhileItIsTold() {
        Observable<String> value = new Observable<>();
        List<Subscription> all = new ArrayList<>();
        all.add(value.listen(it -> all.forEach(Subscription::unsubscribe)));
        all.add(value.listen(heard::add));
        value.set("a");
        value.set("b");
        assertThat(heard).containsExactly("a");
    }

    @Test
    void idsTellOfChangesOnly() {
        ObservableIds ids = new ObservableIds();
        ids.listen(() -> heard.add(ids.get()));
        ids.clear();
        ids.add("b");
        ids.add("a");
        ids.add("b");
        assertThat(ids.remove("c")).isFalse();
        assertThat(ids.first()).contains("b");
        assertThat(ids.remove("b")).isTrue();
        ids.clear();
        assertThat(heard.stream().map(Object::toString)).containsExactly("[b]", "[b, a]", "[a]", "[]");
    }

    @Test
    void selectingAZoneAloneTakesTheOthersAwayAndOneMoreKeepsThem() {
        Selection selection = new Selection();
        selection.zone().set("one");
        selection.zoneAlso("two");
        assertThat(selection.zones().get()).containsExactly("one", "two");
        assertThat(selection.zone().get()).isEqualTo("two");
        selection.zoneAlso("two");
        assertThat(selection.zone().get()).isEqualTo("one");
        selection.zone().set("three");
        assertThat(selection.zones().get()).containsExactly("three");
        selection.zone().set(null);
        assertThat(selection.zones().get()).isEmpty();
    }
}
