package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.CurveEditor;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.LiveState;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.layout.StackPane;
import javafx.scene.paint.Color;

/** The curve of a control map: a line for each send, and a mark at the present value of the control. */
final class ControlCurve extends StackPane {
    private static final double NEAR = 14;

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final CurveEditor curve;
    private ControlMap map;

    /** The event count at the last drawing: {@link LiveState#count}. */
    private long drawnAt;

    /** @param edits whether the ends can be dragged */
    ControlCurve(ViewContext desk, ControlsPresenter presenter, double width, double height, boolean edits) {
        this.desk = desk;
        this.presenter = presenter;
        curve = new CurveEditor(desk, width, height, NEAR, edits ? hands() : null);
        if (edits) {
            curve.setId("control-curve");
            curve.setAccessibleText(say("control-curve.values-in-and-out-the"));
        } else {
            setMouseTransparent(true);
        }
        setMaxSize(width, height);
        getChildren().add(curve);
    }

    private CurveEditor.Hands hands() {
        return (line, low) -> {
            String id = map.id();
            return (in, out) -> presenter.mapEdit(say("edit.curve"), id, it -> dragged(it, line, low, in, out));
        };
    }

    void show(ControlMap shown) {
        map = shown;
        drawnAt = desk.live().count();
        ControlMap.Trigger when = map.when();
        List<CurveEditor.Line> lines =
                map.sends().stream().map(send -> line(send, when)).toList();
        curve.show(new CurveEditor.Curve(
                when.kind().most(), when.low(), when.high(), !map.ignoreOutside(), lines, positions()));
    }

    /** Moves the stroke where the control moved. */
    void follow() {
        if (map != null && drawnAt != desk.live().count()) {
            show(map);
        }
    }

    /** Returns the present values of the control, one for each source that has it. */
    private List<Integer> positions() {
        List<Integer> positions = new ArrayList<>();
        for (String source : presenter.players(map)) {
            int value = desk.live().value(source, map.when().kind(), map.when().number(), map.channels());
            if (value != LiveState.UNKNOWN) {
                positions.add(value);
            }
        }
        return positions;
    }

    private CurveEditor.Line line(ControlMap.Send send, ControlMap.Trigger when) {
        int number = presenter.said(map, send).colour();
        Color colour = number == 0 ? desk.theme().palette().get("soft") : PartColours.of(number);
        return new CurveEditor.Line(
                colour,
                send.kind().most(),
                send.first(),
                send.last(),
                send.kind() == ControlKind.SCENE ? call(send, when) : CurveEditor.NO_STEP);
    }

    /** A call is a step: where the value comes to be over 0. */
    private static int call(ControlMap.Send send, ControlMap.Trigger when) {
        int from = when.low();
        while (from < when.high() && send.output(when, from) == 0) {
            from++;
        }
        return from;
    }

    private static ControlMap dragged(ControlMap map, int line, boolean low, int in, int out) {
        ControlMap.Trigger when = map.when();
        ControlMap.Trigger window = low
                ? new ControlMap.Trigger(when.kind(), when.number(), Math.min(in, when.high()), when.high())
                : new ControlMap.Trigger(when.kind(), when.number(), when.low(), Math.max(in, when.low()));
        return map.withWhen(window)
                .withSend(line, it -> low ? it.withWindow(out, it.last()) : it.withWindow(it.first(), out));
    }
}
