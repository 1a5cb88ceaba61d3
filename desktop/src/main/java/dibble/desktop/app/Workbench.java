package dibble.desktop.app;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.FocusedEntry;
import dibble.desktop.ui.FrameTimer;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.Theme;
import dibble.desktop.ui.ViewContext;
import dibble.jack.JackDevices;
import dibble.ports.MachineDevices;
import dibble.ports.OutputPort;
import dibble.presentation.OtherPrograms;
import dibble.presentation.app.AppServices;
import dibble.presentation.app.ProgramPorts;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.AudioEngine;
import dibble.sound.SoundEngine;
import dibble.time.Clock;
import dibble.user.UserFolder;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import javafx.application.Platform;

/** The services of the application with those of the window. */
public final class Workbench extends AppServices {
    private final ViewContext desk;

    private Workbench(
            Session session,
            Performance performance,
            SoundEngine sound,
            Function<Document, OtherPrograms> programs,
            Path userFolder,
            AskBar ask,
            FrameTimer pulse) {
        super(
                session,
                performance,
                new Surroundings(
                        sound,
                        programs,
                        List.of(MachineDevices.foundLater()),
                        userFolder,
                        ask,
                        pulse,
                        new FocusedEntry(ask::getScene),
                        outcome -> Platform.runLater(() -> ask.inBackground(outcome))));
        desk = new ViewContext(
                context(),
                pulse,
                new Theme(),
                ask,
                new Commands(),
                new Pointer(context().document()));
    }

    /** A workbench whose built-in instruments sound, among other programs. */
    public static Workbench sounding(Session session, Performance performance) {
        JackDevices jack = new JackDevices(Clock.SYSTEM);
        SoundEngine sound = new AudioEngine(Clock.SYSTEM, settings -> ProgramPorts.sound(jack, settings));
        return among(session, performance, sound, jack, UserFolder.path());
    }

    /** A workbench with ports among other programs. */
    static Workbench among(
            Session session, Performance performance, SoundEngine sound, JackDevices jack, Path userFolder) {
        return new Workbench(
                session,
                performance,
                sound,
                document -> new ProgramPorts(jack, document),
                userFolder,
                new AskBar(!Main.isOffScreen()),
                new FrameTimer());
    }

    /** Creates a stand-alone workbench with another sound engine. */
    static Workbench alone(
            Session session, Performance performance, Function<String, OutputPort> instruments, Path userFolder) {
        return new Workbench(
                session,
                performance,
                SoundEngine.elsewhere(instruments),
                document -> OtherPrograms.NONE,
                userFolder,
                new AskBar(!Main.isOffScreen()),
                new FrameTimer());
    }

    /** Returns the context of the views. */
    public ViewContext desk() {
        return desk;
    }
}
