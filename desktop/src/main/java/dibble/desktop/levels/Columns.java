package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.LevelBar;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** The columns of the view: their widths and headings. */
final class Columns extends HBox {
    static final double NAME = 156;
    static final double SWITCHES = 112;
    static final double LEVEL = 62;
    static final double OUTPUT = 124;
    static final double PEAK = 62;
    static final double GAP = 10;
    private static final double SIDE = 16;
    private static final double MAX_BAR = 40;
    private static final int[] MARKS = {-48, -36, -24, -12, -6, 0, 6};

    Columns() {
        super(GAP);
        getStyleClass().add("level-columns");
        setAlignment(Pos.BOTTOM_LEFT);
        setBar(0);
        Scale scale = new Scale();
        HBox.setHgrow(scale, Priority.ALWAYS);
        Label peak = head(say("levels-view.peak"), PEAK);
        peak.setAlignment(Pos.CENTER_RIGHT);
        getChildren()
                .addAll(
                        space(NAME),
                        space(SWITCHES),
                        scale,
                        head(say("levels-view.db"), LEVEL),
                        head(say("levels-view.pan"), PanLine.WIDTH),
                        head(say("levels-view.room"), SendBar.WIDTH),
                        head(say("levels-view.chorus"), SendBar.WIDTH),
                        head(say("levels-view.output-column"), OUTPUT),
                        peak);
    }

    /** Leaves room for the scroll bar beside the rows. */
    void setBar(double width) {
        boolean is = width > 0 && width < MAX_BAR;
        setPadding(new Insets(0, SIDE + (is ? width : 0), 2, SIDE));
    }

    private static Region space(double width) {
        Region space = new Region();
        space.setMinWidth(width);
        space.setMaxWidth(width);
        return space;
    }

    private static Label head(String text, double width) {
        Label head = Cards.soft(text);
        fix(head, width);
        return head;
    }

    /** Sets the width of a node to that of its column. */
    static void fix(Region node, double width) {
        node.setMinWidth(width);
        node.setPrefWidth(width);
        node.setMaxWidth(width);
    }

    /** The numbers above the bars. */
    private static final class Scale extends Pane {
        Scale() {
            for (int mark : MARKS) {
                Label label = Cards.soft((mark < 0 ? "−" : mark > 0 ? "+" : "") + Math.abs(mark));
                label.getStyleClass().add("level-mark");
                getChildren().add(label);
            }
            setMinHeight(18);
            setMinWidth(0);
        }

        @Override
        protected void layoutChildren() {
            double before = Double.NEGATIVE_INFINITY;
            for (int i = MARKS.length - 1; i >= 0; i--) {
                Node label = getChildren().get(i);
                double width = label.prefWidth(-1);
                double x = Math.round(LevelBar.share(MARKS[i]) * getWidth() - width / 2);
                label.resizeRelocate(x, getHeight() - 18, width, 18);
                // Where the numbers would touch, every second is enough.
                boolean fits = before == Double.NEGATIVE_INFINITY || x + width + 4 < before;
                label.setVisible(fits);
                before = fits ? x : before;
            }
        }
    }
}
