package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.edits.ControlEdits;
import dibble.midi.ChannelSet;
import dibble.presentation.Choices;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** All about the selected control map. */
final class ControlInspector extends VBox {
    private static final double WIDTH = 292;
    private static final double HEIGHT = 190;

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final Label empty = Cards.soft("");
    private final Label title = Cards.heading("");
    private final ControlCurve curve;
    private final Label low = Cards.soft("");
    private final Label high = Cards.soft("");
    private final VBox sends = new VBox(12);
    private final List<SendForm> sendForms = new ArrayList<>();
    private final VBox body = new VBox(8);
    private final Form<String> form;
    private ControlMap map;

    ControlInspector(ViewContext desk, ControlsPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        setId("control-inspector");
        getStyleClass().add("gear-inspector");
        title.setWrapText(true);
        empty.setWrapText(true);
        curve = new ControlCurve(desk, presenter, WIDTH, HEIGHT, true);
        form = new Form<>(
                () -> desk.session().middleC(),
                id -> presenter.map(id).isPresent(),
                (id, what, change) -> change.apply(id));
        NumberOrKey number = new NumberOrKey(
                "control-number",
                say("control-inspector.of-the-control"),
                value -> presenter.change(
                        say("edit.number"),
                        map.id(),
                        it -> it.withWhen(new ControlMap.Trigger(
                                it.when().kind(),
                                value,
                                it.when().low(),
                                it.when().high()))));
        form.text(
                        "control-name",
                        say("common.name"),
                        say("control-inspector.name-of-the-control-map"),
                        id -> SessionFormatter.controlMap(now(id), desk.session()),
                        edit(say("edit.rename"), ControlMap::withName))
                .choice(
                        "control-scene",
                        say("common.active-in"),
                        say("control-inspector.the-scene-in-which-the"),
                        id -> Choices.holds(desk.session()),
                        id -> ControlEdits.sceneOf(desk.session(), id)
                                .map(Scene::id)
                                .orElse(Choices.ALWAYS),
                        (id, scene) -> {
                            presenter.holdIn(id, scene.equals(Choices.ALWAYS) ? null : scene);
                            return id;
                        })
                .choice(
                        "control-source",
                        say("control-inspector.source"),
                        say("control-inspector.source-of-the-control"),
                        id -> Choices.players(desk.session()),
                        id -> now(id).source(),
                        edit(say("edit.source"), (it, source) -> it.withSource(source)))
                .choice(
                        "control-kind",
                        say("control-inspector.control"),
                        say("control-inspector.kind-of-control"),
                        id -> SendForm.KINDS,
                        id -> now(id).when().kind(),
                        edit(say("edit.control"), (it, kind) -> it.withWhen(ControlsPresenter.ofKind(it.when(), kind))))
                .row(
                        say("common.number"),
                        number,
                        id -> number.show(
                                now(id).when().kind(),
                                now(id).when().number(),
                                desk.session().middleC()))
                .onlyFor(id -> now(id).when().kind().isNumbered())
                .ends(
                        "control-window",
                        say("control-inspector.window"),
                        say("control-inspector.window-of-values"),
                        id -> now(id).when().kind().most(),
                        id -> new int[] {now(id).when().low(), now(id).when().high()},
                        edit(
                                say("edit.window"),
                                (it, ends) -> it.withWhen(new ControlMap.Trigger(
                                        it.when().kind(),
                                        it.when().number(),
                                        Math.min(ends[0], ends[1]),
                                        Math.max(ends[0], ends[1])))))
                .flag(
                        "control-outside",
                        say("control-inspector.outside-the-window"),
                        say("control-inspector.values-outside-the-window-send"),
                        say("control-inspector.send-nothing"),
                        say("control-inspector.hold-the-end-value"),
                        id -> now(id).ignoreOutside(),
                        edit(say("edit.values-outside-the-window"), ControlMap::withIgnoreOutside))
                .flag(
                        "control-keep",
                        say("control-inspector.the-control-itself"),
                        say("control-inspector.the-control-also-reaches-the"),
                        say("control-inspector.also-reaches-the-zones"),
                        say("common.goes-no-further"),
                        id -> now(id).keep(),
                        edit(say("edit.pass-control-on"), ControlMap::withKeep))
                .channels(
                        "control-channel",
                        say("control-inspector.channels"),
                        id -> now(id).channels(),
                        edit(say("edit.channels"), (ControlMap it, ChannelSet channels) -> it.withChannels(channels)));
        FlowPane buttons = new FlowPane(
                6,
                6,
                Cards.button(
                        "control-add-send",
                        say("control-inspector.add-target"),
                        () -> presenter.change(say("edit.new-target"), map.id(), ControlsPresenter::withMore)),
                Cards.button(
                        "control-duplicate",
                        say("common.duplicate"),
                        () -> desk.selection().control().set(presenter.duplicate(map.id()))),
                Cards.button("control-delete", say("common.delete"), () -> presenter.delete(map.id())));
        body.getChildren().addAll(title, curve, Cards.line(low, high), sends, buttons, form);
        getChildren().addAll(empty, body);
    }

    private ControlMap now(String id) {
        return presenter.map(id).orElseThrow();
    }

    private <V> BiFunction<String, V, String> edit(String what, BiFunction<ControlMap, V, ControlMap> with) {
        return (id, value) -> {
            presenter.change(what, id, it -> with.apply(it, value));
            return id;
        };
    }

    /** Shows the selected map, or says what to do next. */
    void show() {
        Optional<ControlMap> selected =
                Optional.ofNullable(desk.selection().control().get()).flatMap(presenter::map);
        if (map != null && selected.filter(it -> it.id().equals(map.id())).isEmpty()) {
            EntryField.commitWithin(this);
        }
        body.setVisible(selected.isPresent());
        body.setManaged(selected.isPresent());
        empty.setVisible(selected.isEmpty());
        empty.setManaged(selected.isEmpty());
        map = selected.orElse(null);
        if (map == null) {
            empty.setText(say("control-inspector.click-a-card-to-see"));
            return;
        }
        title.setText(SessionFormatter.controlMap(map, desk.session()));
        curve.show(map);
        ControlKind kind = map.when().kind();
        low.setText(presenter.when(map) + " · " + SessionFormatter.value(kind, 0));
        high.setText(SessionFormatter.value(kind, kind.most()));
        while (sendForms.size() < map.sends().size()) {
            sendForms.add(new SendForm(desk, presenter, sendForms.size()));
        }
        List<SendForm> there = List.copyOf(sendForms.subList(0, map.sends().size()));
        if (!sends.getChildren().equals(there)) {
            sends.getChildren().setAll(there);
        }
        there.forEach(it -> it.show(map));
        form.show(map.id());
    }

    /** Follows the control. */
    void follow() {
        if (map != null && presenter.map(map.id()).isPresent()) {
            curve.follow();
            for (int i = 0; i < Math.min(sendForms.size(), map.sends().size()); i++) {
                sendForms.get(i).follow(map);
            }
        }
    }
}
