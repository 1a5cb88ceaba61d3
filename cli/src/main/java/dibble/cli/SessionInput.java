package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.SessionContent;
import dibble.gear.Source;
import dibble.routing.Scene;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.Optional;
import java.util.stream.Collectors;

/** The session argument of commands. */
final class SessionInput {
    private SessionInput() {}

    /** The performance in a scene; null for the scene that is active. */
    static Performance inScene(SessionContent opened, String scene, String file) {
        if (scene != null && opened.session().scene(scene).isEmpty()) {
            throw new BadInput(say(
                    "session-input.no-scene-in-expected-none",
                    scene,
                    file,
                    opened.session().scenes().isEmpty(),
                    opened.session().scenes().stream().map(Scene::id).collect(Collectors.joining(", "))));
        }
        return scene == null ? opened.performance() : opened.performance().withScene(scene);
    }

    /** A source by its id or, where no id fits, by its name; case is ignored. */
    static Optional<Source> source(Session session, String name) {
        String wanted = name.strip();
        return session.sources().stream()
                .filter(source -> source.id().equalsIgnoreCase(wanted))
                .findFirst()
                .or(() -> session.sources().stream()
                        .filter(source -> source.name().equalsIgnoreCase(wanted))
                        .findFirst());
    }

    /** The ids of the sources, for messages. */
    static String sources(Session session) {
        return session.sources().isEmpty()
                ? say("session-input.none-the-session-has-no")
                : String.join(", ", session.sources().stream().map(Source::id).toList());
    }
}
