package dibble.desktop.scenes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.presentation.Choice;
import dibble.presentation.Programs;
import dibble.presentation.scenes.ScenesPresenter;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** All about the selected scene: its name, what calls it, and the sounds that it sets. */
final class SceneInspector extends VBox {
    private static final String AS_IT_IS = say("scene-inspector.no-change");

    private final ViewContext desk;
    private final ScenesPresenter presenter;
    private final Label hint = Cards.soft(say("scene-inspector.click-a-scene-to-see"));
    private final Label title = Cards.heading("");
    private final Form<String> form;
    private final FlowPane buttons = new FlowPane(6, 6);
    private final VBox sounds = new VBox(4);
    private final MenuButton addSound = new MenuButton(say("scene-inspector.change-a-sound"));
    private final Form<PartRef> sound;
    private PartRef part;

    SceneInspector(ViewContext desk, ScenesPresenter presenter, Consumer<String> select) {
        super(10);
        this.desk = desk;
        this.presenter = presenter;
        setId("scene-inspector");
        getStyleClass().add("gear-inspector");
        title.setWrapText(true);
        hint.setWrapText(true);
        form = new Form<String>(
                        () -> desk.session().middleC(),
                        id -> desk.session().scene(id).isPresent(),
                        (id, what, change) -> change.apply(id))
                .text(
                        "scene-name",
                        say("common.name"),
                        say("scene-inspector.name-of-the-scene"),
                        id -> now(id).name(),
                        (id, text) -> {
                            presenter.change(say("edit.rename"), id, scene -> scene.withName(text));
                            return id;
                        })
                .number(
                        "scene-program",
                        say("common.program"),
                        say("scene-inspector.program-change-that-switches-to"),
                        1,
                        128,
                        true,
                        id -> now(id).program() == null ? null : now(id).program() + 1,
                        (id, number) -> {
                            presenter.change(
                                    say("edit.program"),
                                    id,
                                    scene -> scene.withProgram(number == null ? null : number - 1));
                            return id;
                        });
        buttons.getChildren()
                .setAll(
                        Cards.button(
                                "scene-duplicate",
                                say("common.duplicate"),
                                () -> select.accept(presenter.duplicate(id()))),
                        Cards.button("scene-up", say("common.up"), () -> presenter.move(id(), -1)),
                        Cards.button("scene-down", say("common.down"), () -> presenter.move(id(), 1)),
                        Cards.button("scene-delete", say("common.delete"), () -> presenter.delete(id())));
        addSound.setId("scene-add-sound");
        addSound.getStyleClass().add("small");
        sound = soundForm();
    }

    private Form<PartRef> soundForm() {
        return new Form<PartRef>(
                        () -> desk.session().middleC(),
                        ref -> selected().isPresent(),
                        (ref, what, change) -> change.apply(ref))
                .choice(
                        "scene-sound-program",
                        say("common.program"),
                        say("scene-inspector.program-the-scene-gives-the"),
                        ref -> new Programs(desk.session(), ref).choices(new Choice<>(null, AS_IT_IS), program(ref)),
                        this::program,
                        edit((sound, to) -> to == null
                                ? new Sound(sound.bank(), null, sound.volume(), sound.pan())
                                : new Sound(to.bank(), to.program(), sound.volume(), sound.pan())))
                .number(
                        "scene-sound-level",
                        say("common.level-cc-7"),
                        say("scene-inspector.level-the-scene-gives-the"),
                        0,
                        127,
                        true,
                        ref -> sound(ref).volume(),
                        edit((sound, to) -> new Sound(sound.bank(), sound.program(), to, sound.pan())))
                .number(
                        "scene-sound-pan",
                        say("common.pan-cc-10"),
                        say("scene-inspector.pan-the-scene-gives-the"),
                        0,
                        127,
                        true,
                        ref -> sound(ref).pan(),
                        edit((sound, to) -> new Sound(sound.bank(), sound.program(), sound.volume(), to)));
    }

    /** The program that a scene gives a part, or null. */
    private Programs.Picked program(PartRef ref) {
        Sound sound = sound(ref);
        return sound.program() == null ? null : new Programs(desk.session(), ref).picked(sound.bank(), sound.program());
    }

    private <V> BiFunction<PartRef, V, PartRef> edit(BiFunction<Sound, V, Sound> with) {
        return (ref, value) -> {
            presenter.changeSound(id(), ref, before -> with.apply(before, value));
            return ref;
        };
    }

    private Optional<Scene> selected() {
        return desk.session().scene(desk.selection().scene().get());
    }

    private String id() {
        return selected().orElseThrow().id();
    }

    private Scene now(String id) {
        return desk.session().scene(id).orElseThrow();
    }

    private Sound sound(PartRef ref) {
        return selected().stream()
                .flatMap(scene -> scene.sounds().stream())
                .filter(it -> it.part().equals(ref))
                .findFirst()
                .map(SceneSound::sound)
                .orElse(new Sound(null, null, null, null));
    }

    void show() {
        Optional<Scene> scene = selected();
        if (scene.isEmpty()) {
            getChildren().setAll(hint);
            return;
        }
        title.setText(scene.get().name());
        form.show(scene.get().id());
        if (part != null && desk.session().part(part).isEmpty()) {
            part = null;
        }
        sounds.getChildren()
                .setAll(scene.get().sounds().stream()
                        .map(it -> line(it.part(), presenter.sound(it.part(), it.sound())))
                        .toList());
        if (part != null
                && scene.get().sounds().stream().noneMatch(it -> it.part().equals(part))) {
            sounds.getChildren().add(line(part, presenter.sound(part, sound(part))));
        }
        addSound.getItems()
                .setAll(presenter.partsLeft(scene.get()).stream()
                        .map(this::item)
                        .toList());
        List<Node> nodes = new ArrayList<>(
                List.of(title, form, buttons, Cards.strong(say("scene-inspector.sounds-it-changes")), sounds));
        if (scene.get().sounds().isEmpty() && part == null) {
            Label none = Cards.soft(say("scene-inspector.none-all-parts-keep-their"));
            none.setWrapText(true);
            nodes.add(none);
        }
        if (part != null) {
            nodes.add(sound);
            sound.show(part);
            nodes.add(Cards.button("scene-sound-none", say("scene-inspector.dont-change-this-part"), () -> {
                presenter.changeSound(id(), part, before -> new Sound(null, null, null, null));
                part = null;
                show();
            }));
        }
        nodes.add(addSound);
        if (!getChildren().equals(nodes)) {
            getChildren().setAll(nodes);
        }
    }

    private Node line(PartRef ref, String words) {
        Optional<Part> found = desk.session().part(ref);
        ToggleButton button =
                new ToggleButton(found.map(Part::name).orElse(say("common.no-such-part", ref)) + ": " + words);
        button.setGraphic(
                new PartBadge().show(found.map(Part::colour).orElse(0), SessionFormatter.channel(ref, desk.routing())));
        button.setId("scene-sound-" + ref.part());
        button.getStyleClass().add("small");
        button.setWrapText(true);
        button.setSelected(Objects.equals(ref, part));
        button.setOnAction(event -> choose(ref));
        return button;
    }

    private MenuItem item(PartRef ref) {
        Function<PartRef, String> owner =
                it -> desk.session().instrument(it.instrument()).orElseThrow().name();
        return Cards.item(
                "scene-sound-of-" + ref.part(),
                owner.apply(ref) + " / "
                        + desk.session().part(ref).orElseThrow().name(),
                () -> choose(ref));
    }

    private void choose(PartRef ref) {
        part = ref;
        show();
    }
}
