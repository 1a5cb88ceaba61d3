package dibble.desktop.help;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.BulletList;
import org.commonmark.node.Code;
import org.commonmark.node.Emphasis;
import org.commonmark.node.Heading;
import org.commonmark.node.Link;
import org.commonmark.node.ListItem;
import org.commonmark.node.Node;
import org.commonmark.node.OrderedList;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.StrongEmphasis;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;

/** A page of Markdown as nodes: headings, paragraphs, lists, links, code. Its text can be read aloud and found by tests. */
final class MarkdownPage extends AbstractVisitor {
    private static final Parser PARSER = Parser.builder().build();

    private final Consumer<String> links;
    private final UnaryOperator<String> codes;
    private final Deque<Pane> blocks = new ArrayDeque<>();
    private final Deque<String> styles = new ArrayDeque<>();
    private TextFlow line;
    private int number;

    private MarkdownPage(Pane page, Consumer<String> links, UnaryOperator<String> codes) {
        this.links = links;
        this.codes = codes;
        blocks.push(page);
    }

    /**
     * Returns the nodes of a page.
     *
     * @param links receives the target of a chosen link
     * @param codes replaces inline code by its displayed text
     */
    static VBox of(String markdown, Consumer<String> links, UnaryOperator<String> codes) {
        VBox page = new VBox(10);
        page.getStyleClass().add("help-page");
        PARSER.parse(markdown).accept(new MarkdownPage(page, links, codes));
        return page;
    }

    private void paragraph(Node node, String style) {
        line = new TextFlow();
        line.getStyleClass().add(style);
        blocks.peek().getChildren().add(line);
        visitChildren(node);
        line = null;
    }

    @Override
    public void visit(Heading heading) {
        paragraph(heading, "help-heading-" + Math.min(3, heading.getLevel()));
    }

    @Override
    public void visit(Paragraph paragraph) {
        paragraph(paragraph, "help-paragraph");
    }

    @Override
    public void visit(BulletList list) {
        number = 0;
        visitChildren(list);
    }

    @Override
    public void visit(OrderedList list) {
        number = 1;
        visitChildren(list);
        number = 0;
    }

    @Override
    public void visit(ListItem item) {
        Label mark = new Label(number > 0 ? number++ + "." : "•");
        mark.getStyleClass().add("help-mark");
        mark.setMinWidth(22);
        VBox content = new VBox(4);
        HBox.setHgrow(content, Priority.ALWAYS);
        blocks.peek().getChildren().add(new HBox(2, mark, content));
        blocks.push(content);
        int outer = number;
        visitChildren(item);
        number = outer;
        blocks.pop();
    }

    @Override
    public void visit(Text text) {
        add(text.getLiteral(), styles.isEmpty() ? "help-text" : styles.peek());
    }

    @Override
    public void visit(SoftLineBreak lineBreak) {
        add(" ", "help-text");
    }

    @Override
    public void visit(Code code) {
        add(codes.apply(code.getLiteral()), "help-code");
    }

    @Override
    public void visit(StrongEmphasis strong) {
        styled(strong, "help-strong");
    }

    @Override
    public void visit(Emphasis emphasis) {
        styled(emphasis, "help-emphasis");
    }

    private void styled(Node node, String style) {
        styles.push(style);
        visitChildren(node);
        styles.pop();
    }

    @Override
    public void visit(Link link) {
        Hyperlink shown = new Hyperlink(((Text) link.getFirstChild()).getLiteral());
        shown.setOnAction(event -> links.accept(link.getDestination()));
        line.getChildren().add(shown);
    }

    private void add(String words, String style) {
        javafx.scene.text.Text text = new javafx.scene.text.Text(words);
        text.getStyleClass().add(style);
        line.getChildren().add(text);
    }
}
