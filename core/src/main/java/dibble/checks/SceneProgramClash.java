package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.SceneEdits;
import dibble.routing.Scene;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Two scenes with the same program: only the first can be called by it. */
final class SceneProgramClash extends Check {
    SceneProgramClash() {
        super("scene-program-clash", Level.WARNING, say("scene-program-clash.that-program-switches-only-to"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        Map<Integer, Scene> owners = new HashMap<>();
        for (Scene scene : subject.session.scenes()) {
            Scene owner = scene.program() == null ? null : owners.putIfAbsent(scene.program(), scene);
            if (owner != null) {
                report.add(
                        List.of(owner.id(), scene.id()),
                        say(
                                "scene-program-clash.scenes-and-both-use-program",
                                CheckContext.quoted(owner.name()),
                                CheckContext.quoted(scene.name()),
                                scene.program() + 1),
                        mend(subject, scene));
            }
        }
    }

    private static Fix mend(CheckContext subject, Scene scene) {
        for (int program = 0; program < 128; program++) {
            Integer free = program;
            if (subject.session.scenes().stream().noneMatch(other -> free.equals(other.program()))) {
                return Fix.session(
                        say("scene-program-clash.use-program-for", CheckContext.quoted(scene.name()), free + 1),
                        session -> SceneEdits.changeScene(session, scene.id(), it -> it.withProgram(free)));
            }
        }
        return null;
    }
}
