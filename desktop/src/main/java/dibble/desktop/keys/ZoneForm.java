package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.keys.KeysPresenter;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import javafx.scene.layout.VBox;

/** The target of a zone, its scene, and its changes of events. Finds the zone by its id. */
final class ZoneForm extends VBox {
    private static final int LOUDEST = 127;

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final Form<String> form;
    private final EntryField blocked =
            Cards.field("zone-blocked", say("zone-form.numbers-of-controllers-that-do"), this::commitBlocked);
    private String shown;
    private final VelocityCurve curve;

    ZoneForm(ViewContext desk, KeysPresenter presenter) {
        super(6);
        this.desk = desk;
        this.presenter = presenter;
        curve = new VelocityCurve(desk, presenter);
        form = new Form<>(
                () -> desk.session().middleC(),
                id -> desk.session().zone(id).isPresent(),
                (id, what, change) -> change.apply(id));
        form.choice(
                        "zone-sound",
                        say("zone-form.sound"),
                        say("zone-form.the-sound-the-zone-plays"),
                        id -> sounds(id),
                        this::sound,
                        (id, to) -> {
                            presenter.change(
                                    say("edit.sound"),
                                    id,
                                    it -> it.with().to(to).build());
                            return id;
                        })
                .choice(
                        "zone-source",
                        say("common.played-by"),
                        say("zone-form.the-source-that-plays-the"),
                        id -> Choices.players(desk.session()),
                        id -> zone(id).source(),
                        change(
                                say("edit.played-by"),
                                (it, source) -> it.with().source(source).build()))
                .choice(
                        "zone-scene",
                        say("common.active-in"),
                        say("zone-form.the-scene-in-which-the"),
                        id -> Choices.holds(desk.session()),
                        id -> desk.session().sceneOf(id).map(Scene::id).orElse(Choices.ALWAYS),
                        (id, scene) -> {
                            presenter.holdIn(id, scene.equals(Choices.ALWAYS) ? null : scene);
                            return id;
                        })
                .channels(
                        "zone-channel",
                        say("common.channels"),
                        id -> zone(id).channels(),
                        change(
                                say("edit.channels"),
                                (it, channels) -> it.with().channels(channels).build()))
                .number(
                        "velocity-out-low",
                        say("zone-form.softest-out"),
                        say("zone-form.what-the-softest-velocity-becomes"),
                        0,
                        LOUDEST,
                        true,
                        id -> Optional.ofNullable(zone(id).velocityTo())
                                .map(Zone.VelocityMap::first)
                                .orElse(null),
                        change(say("edit.velocity-out"), (it, value) -> withVelocity(it, true, value)))
                .number(
                        "velocity-out-high",
                        say("zone-form.loudest-out"),
                        say("zone-form.what-the-loudest-velocity-becomes"),
                        0,
                        LOUDEST,
                        true,
                        id -> Optional.ofNullable(zone(id).velocityTo())
                                .map(Zone.VelocityMap::last)
                                .orElse(null),
                        change(say("edit.velocity-out"), (it, value) -> withVelocity(it, false, value)))
                .wideRow(say("zone-form.velocity-in-and-out"), curve, curve::show)
                .flag(
                        "zone-fold",
                        say("zone-form.into-range"),
                        say("zone-form.move-notes-outside-the-part"),
                        say("zone-form.by-octaves"),
                        say("common.no"),
                        id -> zone(id).fold(),
                        change(
                                say("edit.move-into-range"),
                                (it, on) -> it.with().fold(on).build()))
                .flag(
                        "zone-unmapped",
                        say("zone-form.keys-without-notes"),
                        say("zone-form.keys-without-a-note-of"),
                        say("zone-form.silent"),
                        say("zone-form.play-as-they-are"),
                        id -> zone(id).dropUnmapped(),
                        change(
                                say("edit.keys-without-notes"),
                                (it, on) -> it.with().dropUnmapped(on).build()));
        form.row(say("zone-form.blocked-ccs"), blocked, id -> {
            shown = id;
            blocked.show(blocked(zone(id)));
        });
        getChildren().add(form);
    }

    void show(Zone zone) {
        form.show(zone.id());
    }

    private Zone zone(String id) {
        return desk.session().zone(id).orElseThrow();
    }

    private <V> BiFunction<String, V, String> change(String what, BiFunction<Zone, V, Zone> change) {
        return (id, value) -> {
            presenter.change(what, id, it -> change.apply(it, value));
            return id;
        };
    }

    private ZoneTarget sound(String id) {
        return zone(id).to();
    }

    /** Returns all parts, and the present target if it is not a part. */
    private List<Choice<ZoneTarget>> sounds(String id) {
        List<Choice<ZoneTarget>> choices = new ArrayList<>();
        Choices.parts(desk.session())
                .forEach(it -> choices.add(new Choice<>(new ZoneTarget.ToPart(it.value()), it.words())));
        ZoneTarget now = zone(id).to();
        if (choices.stream().noneMatch(choice -> choice.value().equals(now))) {
            choices.add(new Choice<>(now, SessionFormatter.target(now, desk.session())));
        }
        return choices;
    }

    /** One end alone is set: the other is as played. */
    static Zone withVelocity(Zone zone, boolean first, Integer value) {
        if (value == null) {
            return zone.with().velocityTo(null).build();
        }
        Zone.VelocityMap before = zone.velocityTo() == null
                ? new Zone.VelocityMap(zone.velocity().low(), zone.velocity().high())
                : zone.velocityTo();
        return zone.with()
                .velocityTo(
                        first
                                ? new Zone.VelocityMap(value, before.last())
                                : new Zone.VelocityMap(before.first(), value))
                .build();
    }

    private static String blocked(Zone zone) {
        return zone.blockControllers().isEmpty()
                ? "–"
                : zone.blockControllers().stream().map(String::valueOf).collect(Collectors.joining(", "));
    }

    private void commitBlocked() {
        Optional<Zone> zone = Optional.ofNullable(shown).flatMap(desk.session()::zone);
        if (zone.isEmpty()) {
            return;
        }
        Set<Integer> numbers = new TreeSet<>();
        boolean fits = true;
        for (String word : blocked.getText().split("[\\s,–-]+")) {
            if (word.matches("\\d{1,3}") && Integer.parseInt(word) <= LOUDEST) {
                numbers.add(Integer.parseInt(word));
            } else {
                fits &= word.isEmpty();
            }
        }
        if (fits && !numbers.equals(zone.get().blockControllers())) {
            presenter.change(
                    say("edit.blocked-controllers"),
                    shown,
                    it -> it.with().blockControllers(numbers).build());
        } else {
            blocked.setText(blocked(zone.get()));
        }
    }
}
