package dibble.desktop.keys;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.presentation.keys.KeysPresenter;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;

/** A part that is dragged onto a keyboard: its name under the pointer, then the question where it is to lie. */
final class PartDrop extends Pane implements SoundsPanel.Drags {
    private static final int MIDDLE = 60;

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final Map<String, SourceRow> rows;
    private final Node view;
    private final Label ghost = new Label();
    private final DropQuestion question;

    /**
     * @param rows the present rows, by the ids of their sources
     * @param view the visible area of the rows, outside which a row is no target
     */
    PartDrop(ViewContext desk, KeysPresenter presenter, Map<String, SourceRow> rows, Node view) {
        this.desk = desk;
        this.presenter = presenter;
        this.rows = rows;
        this.view = view;
        question = new DropQuestion(desk, presenter, this::leave);
        ghost.getStyleClass().add("ghost");
        ghost.setMouseTransparent(true);
        ghost.setVisible(false);
        setPickOnBounds(false);
        getChildren().add(ghost);
        leave();
    }

    private void leave() {
        Cards.show(question, false);
    }

    /** A key was pressed: the split goes there, where one is asked about. */
    void pressed(String source, int key) {
        question.pressed(source, key);
    }

    void leaveIfOutdated() {
        question.leaveIfOutdated();
    }

    private Optional<SourceRow> rowAt(double sceneX, double sceneY) {
        return rows.values().stream()
                .filter(row -> row.localToScene(row.getLayoutBounds()).contains(sceneX, sceneY)
                        && view.localToScene(view.getLayoutBounds()).contains(sceneX, sceneY))
                .findFirst();
    }

    @Override
    public void moved(PartRef part, double sceneX, double sceneY) {
        ghost.setText(desk.session().part(part).map(Part::name).orElse(""));
        ghost.setVisible(true);
        ghost.autosize();
        Point2D at = sceneToLocal(sceneX, sceneY);
        ghost.relocate(at.getX() + 10, at.getY() + 6);
        Optional<SourceRow> aimed = rowAt(sceneX, sceneY);
        rows.values().forEach(row -> row.setAimed(aimed.filter(row::equals).isPresent()));
    }

    @Override
    public void dropped(PartRef part, double sceneX, double sceneY) {
        cancelled();
        rowAt(sceneX, sceneY)
                .ifPresent(row -> add(part, row.sourceId(), row.keyAt(sceneX), sceneToLocal(sceneX, sceneY)));
    }

    @Override
    public void cancelled() {
        ghost.setVisible(false);
        rows.values().forEach(row -> row.setAimed(false));
    }

    @Override
    public void chosen(PartRef part) {
        String source = desk.selection().source().get();
        if (source != null && rows.containsKey(source)) {
            Point2D row = rows.get(source).localToScene(SourceRow.HEAD, 0);
            add(part, source, MIDDLE, sceneToLocal(row).add(40, 20));
        }
    }

    private void add(PartRef part, String source, int key, Point2D at) {
        desk.selection().source().set(source);
        if (!presenter.needsAnswer(source)) {
            desk.selection().zone().set(presenter.layer(source, part));
            return;
        }
        question.ask(source, part, key);
        if (!getChildren().contains(question)) {
            getChildren().add(question);
        }
        Cards.show(question, true);
        question.applyCss();
        question.autosize();
        question.relocate(
                Math.max(8, Math.min(at.getX(), getWidth() - question.getWidth() - 8)),
                Math.max(8, Math.min(at.getY(), getHeight() - question.getHeight() - 8)));
        question.focusFirst();
    }
}
