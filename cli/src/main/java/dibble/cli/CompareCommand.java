package dibble.cli;

import static dibble.cli.CliText.say;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.files.SessionContent;
import dibble.sheet.Comparison;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble compare}: in what two sessions differ. */
@Command(name = "compare")
final class CompareCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "A", descriptionKey = "first")
    private String first;

    @Parameters(index = "1", paramLabel = "B", descriptionKey = "second")
    private String second;

    @Option(names = "--json", descriptionKey = "json")
    private boolean json;

    @Override
    public Integer call() {
        SessionContent one = files.session(first);
        SessionContent other = files.session(second);
        Comparison comparison = Comparison.of(one.session(), one.performance(), other.session(), other.performance());
        if (json) {
            out().println(json(comparison));
        } else {
            comparison.differences().forEach(difference -> print(difference.text()));
            if (comparison.differences().isEmpty()) {
                print(say("compare-command.no-differences"));
            }
        }
        return comparison.differences().isEmpty() ? 0 : 1;
    }

    private static ObjectNode json(Comparison comparison) {
        ObjectNode node = new ObjectMapper().createObjectNode();
        ArrayNode list = node.putArray("differences");
        for (Comparison.Difference difference : comparison.differences()) {
            ObjectNode item = list.addObject();
            item.put("id", difference.id());
            item.put("thing", difference.thing());
            item.put("first", difference.first());
            item.put("second", difference.second());
            ArrayNode changes = item.putArray("changes");
            for (Comparison.Change change : difference.changes()) {
                changes.addObject()
                        .put("what", change.what())
                        .put("first", change.first())
                        .put("second", change.second());
            }
        }
        return node;
    }
}
