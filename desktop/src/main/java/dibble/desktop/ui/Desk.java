package dibble.desktop.ui;

import dibble.gear.Source;
import dibble.ports.Devices;
import dibble.routing.Routing;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.StandIns;
import dibble.studio.Studio;

/** What every view works on: the open document, the studio that plays it, and what the views share. */
public record Desk(
        Document document,
        Studio studio,
        StandIns standIns,
        Devices devices,
        LiveState live,
        Selection selection,
        Pulse pulse,
        Theme theme,
        AskBar ask,
        Levels levels) {
    /** How loud something is. */
    @FunctionalInterface
    public interface Levels {
        /**
         * @param port the name of an instrument's port
         * @param channel 1-16
         * @return 0 to 1; 0 where it is not known
         */
        float level(String port, int channel);
    }

    public Session session() {
        return document.session();
    }

    public Performance performance() {
        return document.performance();
    }

    public Routing routing() {
        return session().routing(performance());
    }

    /** Presses a key of a source's stand-in, on the channel that it plays on. */
    public void press(Source source, int key, int velocity) {
        standIns.standIn(source.port()).ifPresent(keyboard -> keyboard.press(source.playsOn(), key, velocity));
    }

    /** Lets a key of a source's stand-in go. */
    public void release(Source source, int key) {
        standIns.standIn(source.port()).ifPresent(keyboard -> keyboard.release(source.playsOn(), key));
    }
}
