package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Choice;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.SendTarget;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The fields of one send of a control map; shows the map by its id. */
final class SendForm extends VBox {
    /** The possible triggers and sends of a control map. */
    static final List<Choice<ControlKind>> KINDS = List.of(
            new Choice<>(ControlKind.CONTROLLER, say("common.controller-cc")),
            new Choice<>(ControlKind.NOTE, say("common.note")),
            new Choice<>(ControlKind.PITCH_BEND, say("common.pitch-bend")),
            new Choice<>(ControlKind.CHANNEL_PRESSURE, say("common.channel-pressure")),
            new Choice<>(ControlKind.KEY_PRESSURE, say("common.poly-pressure")),
            new Choice<>(ControlKind.PROGRAM_CHANGE, say("common.program-change")),
            new Choice<>(ControlKind.CONTROLLER_14, say("send-form.controller-14-bit")),
            new Choice<>(ControlKind.RPN, say("send-form.rpn")),
            new Choice<>(ControlKind.NRPN, say("send-form.nrpn")));

    private static final List<Choice<ControlKind>> CALL =
            List.of(new Choice<>(ControlKind.SCENE, say("send-form.switch-to")));

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final int place;
    private final PartBadge chip = new PartBadge();
    private final Label now = Cards.strong("");
    private final Button remove;
    private final Form<String> form;
    private String shown;

    /** @param place which of the sends it is */
    SendForm(ViewContext desk, ControlsPresenter presenter, int place) {
        super(6);
        this.desk = desk;
        this.presenter = presenter;
        this.place = place;
        getStyleClass().add("send-form");
        remove = Cards.button(
                "send-remove-" + place,
                say("send-form.delete"),
                () -> presenter.change(say("edit.delete-target"), shown, it -> ControlsPresenter.without(it, place)));
        remove.getStyleClass().add("link");
        remove.setAccessibleText(say("send-form.delete-target", place + 1));
        HBox.setHgrow(now, Priority.ALWAYS);
        now.setMaxWidth(Double.MAX_VALUE);
        HBox head = new HBox(8, chip, now, remove);
        head.getStyleClass().add("card-line");
        form = new Form<>(
                () -> desk.session().middleC(),
                id -> presenter.map(id).filter(it -> it.sends().size() > place).isPresent(),
                (id, what, change) -> change.apply(id));
        NumberOrKey number = new NumberOrKey(
                "send-number-" + place,
                say("send-form.of-target", place + 1),
                value -> change(say("edit.number"), it -> it.withNumber(value)));
        form.choice(
                        "send-aim-" + place,
                        say("send-form.target"),
                        say("send-form.where-target-sends-to", place + 1),
                        id -> presenter.aims(send(id).to()),
                        id -> send(id).to(),
                        edit(say("edit.target"), (send, to) -> ControlsPresenter.led(send, to)))
                .choice(
                        "send-kind-" + place,
                        say("send-form.send-as"),
                        say("send-form.kind-of-message-of-target", place + 1),
                        id -> kinds(send(id)),
                        id -> send(id).kind(),
                        edit(say("edit.kind"), (send, kind) -> ControlsPresenter.ofKind(send, kind)))
                .onlyFor(id -> send(id).kind() != ControlKind.SCENE)
                .row(
                        say("common.number"),
                        number,
                        id -> number.show(
                                send(id).kind(),
                                send(id).number(),
                                desk.session().middleC()))
                .onlyFor(id -> send(id).kind().isNumbered())
                .ends(
                        "send-value-" + place,
                        say("send-form.values"),
                        say("send-form.values-of-target-at-the", place + 1),
                        id -> send(id).kind().most(),
                        id -> new int[] {send(id).first(), send(id).last()},
                        edit(say("edit.curve"), (send, ends) -> send.withWindow(ends[0], ends[1])))
                .onlyFor(id -> send(id).kind() != ControlKind.SCENE)
                .number(
                        "send-rest-" + place,
                        say("send-form.reset-value"),
                        say("send-form.value-of-target-when-the", place + 1),
                        0,
                        127,
                        true,
                        id -> send(id).rest(),
                        edit(say("edit.reset-value"), (send, value) -> send.withRest(value)))
                .onlyFor(id -> send(id).kind() == ControlKind.CONTROLLER);
        getChildren().addAll(head, form);
    }

    private ControlMap.Send send(String id) {
        return presenter.map(id).orElseThrow().sends().get(place);
    }

    private static List<Choice<ControlKind>> kinds(ControlMap.Send send) {
        if (send.kind() == ControlKind.SCENE) {
            return CALL;
        }
        return send.to() instanceof SendTarget.AllParts
                ? KINDS.stream().filter(it -> it.value() != ControlKind.NOTE).toList()
                : KINDS;
    }

    private void change(String what, UnaryOperator<ControlMap.Send> change) {
        presenter.change(what, shown, it -> it.withSend(place, change));
    }

    private <V> BiFunction<String, V, String> edit(String what, BiFunction<ControlMap.Send, V, ControlMap.Send> with) {
        return (id, value) -> {
            presenter.change(what, id, it -> it.withSend(place, send -> with.apply(send, value)));
            return id;
        };
    }

    void show(ControlMap map) {
        shown = map.id();
        ControlsPresenter.Said said = presenter.said(map, map.sends().get(place));
        chip.show(said.colour(), said.channel());
        chip.setVisible(!said.channel().isEmpty());
        chip.setManaged(!said.channel().isEmpty());
        remove.setDisable(map.sends().size() < 2);
        form.show(map.id());
        follow(map);
    }

    /** Shows the output for the control's present value. */
    void follow(ControlMap map) {
        int value = presenter.players(map).stream()
                .mapToInt(source ->
                        desk.live().value(source, map.when().kind(), map.when().number(), map.channels()))
                .filter(it -> it >= 0)
                .findFirst()
                .orElse(-1);
        ControlMap.Send send = map.sends().get(place);
        String text = presenter.said(map, send).to()
                + (value < 0 || send.kind() == ControlKind.SCENE ? "" : "  " + ControlsPresenter.now(map, send, value));
        if (!text.equals(now.getText())) {
            now.setText(text);
        }
    }
}
