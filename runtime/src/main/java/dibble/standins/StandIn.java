package dibble.standins;

import dibble.midi.IdentityMessage;
import dibble.midi.ShortMessage;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import java.util.EnumSet;
import java.util.Set;
import java.util.function.Function;

/**
 * A simulated device. Events that are played on it arrive at its port as from a real one; several callers can play it
 * at once, each on its thread. Received messages sound, appear on its {@link Face}, and drive its {@link
 * PatternSequencer} if it has one.
 */
public final class StandIn implements InputPort {
    /** The identity of a stand-in, with the manufacturer id for non-commercial use. */
    private static final IdentityMessage.Answer IDENTITY =
            new IdentityMessage.Answer(IdentityMessage.NON_COMMERCIAL, 1, 1, "1.0.0.0");

    private static final int PLACES = 16 * 128;

    private final String name;
    private final Clock clock;
    private final Function<String, OutputPort> sounds;
    private final Runnable changed;
    private final Face face = new Face();

    /** Notes that it plays itself and must end itself. Guarded by this. */
    private final boolean[] ownNotes = new boolean[PLACES];

    private volatile Listener listener;
    private volatile PatternSequencer sequencer;
    private volatile boolean plugged = true;
    private volatile Set<Fault> faults = Set.of();

    /** Its sound output, opened with the first sound. Guarded by this. */
    private OutputPort sound;

    /**
     * @param sounds opens the sound output for a device of a name
     * @param changed called when it was plugged in or out
     */
    StandIn(String name, Clock clock, Function<String, OutputPort> sounds, Runnable changed) {
        this.name = name;
        this.clock = clock;
        this.sounds = sounds;
        this.changed = changed;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void listen(Listener heard) {
        listener = heard;
    }

    /** Plays a packed channel message. */
    public void play(int message) {
        Set<Fault> now = faults;
        if (now.contains(Fault.LOCAL_CONTROL)) {
            playItself(message);
        }
        Listener to = listener;
        if (to != null && plugged) {
            int channel = ShortMessage.channel(message);
            to.heard(now.contains(Fault.OTHER_CHANNEL) ? ShortMessage.onChannel(message, channel + 1 & 0xF) : message);
        }
    }

    /** Presses a key on a channel 0-15. */
    public void press(int channel, int key, int velocity) {
        play(ShortMessage.noteOn(channel, key, velocity));
    }

    /** Releases a key. */
    public void release(int channel, int key) {
        play(ShortMessage.noteOff(channel, key, ShortMessage.DEFAULT_RELEASE));
    }

    private synchronized void playItself(int message) {
        int place = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
        if (ShortMessage.isNote(message)) {
            ownNotes[place] = ShortMessage.startsNote(message);
        }
        hear(message, clock.nanos());
    }

    private synchronized void hear(int message, long stamp) {
        face.take(message);
        if (sound == null) {
            sound = sounds.apply(name);
        }
        boolean choosesSound = ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE;
        if (!faults.contains(Fault.HEARS_ALL) || choosesSound) {
            sound.send(message, stamp);
            return;
        }
        for (int channel = 0; channel < 16; channel++) {
            if (face.isUsed(channel)) {
                sound.send(ShortMessage.onChannel(message, channel), stamp);
            }
        }
    }

    /** Returns its display. */
    public Face face() {
        return face;
    }

    /** Returns true if its cable is in. */
    public boolean isPlugged() {
        return plugged;
    }

    /** Pulls its cable out, or puts it in again. */
    public void plug(boolean in) {
        if (plugged != in) {
            plugged = in;
            if (!in) {
                endAll();
            }
            changed.run();
        }
    }

    /** Returns its active faults. */
    public Set<Fault> faults() {
        return faults;
    }

    /** Switches a fault on or off, and ends notes that sound because of it. */
    public void misbehave(Fault fault, boolean on) {
        Set<Fault> now = faults.isEmpty() ? EnumSet.noneOf(Fault.class) : EnumSet.copyOf(faults);
        if (on ? now.add(fault) : now.remove(fault)) {
            if (fault == Fault.HEARS_ALL) {
                endAll();
            }
            faults = Set.copyOf(now);
            if (!on && fault == Fault.LOCAL_CONTROL) {
                endOwn();
            }
        }
    }

    private synchronized void endOwn() {
        for (int place = 0; place < PLACES; place++) {
            if (ownNotes[place]) {
                ownNotes[place] = false;
                hear(ShortMessage.noteOff(place >> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE), clock.nanos());
            }
        }
    }

    /** An unplugged module receives no offs, and ends its sounding notes. */
    private synchronized void endAll() {
        if (sound != null) {
            for (int channel = 0; channel < 16; channel++) {
                int off = ShortMessage.controller(channel, 123, 0);
                face.take(off);
                sound.send(ShortMessage.controller(channel, 64, 0), clock.nanos());
                sound.send(off, clock.nanos());
            }
        }
    }

    /** Returns its sequencer, created at the first call. */
    public synchronized PatternSequencer sequencer() {
        if (sequencer == null) {
            sequencer = new PatternSequencer(clock, this::play, this::sendRealTime);
        }
        return sequencer;
    }

    private void sendRealTime(int status) {
        Listener to = listener;
        if (to != null && plugged) {
            to.heardRealTime(status);
        }
    }

    /** Returns the port for messages to it. */
    OutputPort output() {
        return new Output();
    }

    /** Stops its own playing. */
    synchronized void close() {
        if (sequencer != null) {
            sequencer.close();
        }
        closeSound();
    }

    private synchronized void closeSound() {
        if (sound != null) {
            sound.close();
            sound = null;
        }
    }

    private final class Output implements OutputPort {
        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(int message, long stamp) {
            if (!plugged) {
                return;
            }
            hear(message, stamp);
            Listener to = listener;
            if (to != null && faults.contains(Fault.ECHOES)) {
                to.heard(message);
            }
        }

        @Override
        public void sendExclusive(byte[] message) {
            Listener to = listener;
            if (plugged && to != null && IdentityMessage.isRequest(message)) {
                to.heardExclusive(IDENTITY.bytes());
            }
        }

        @Override
        public void sendRealTime(int status) {
            PatternSequencer patterns = sequencer;
            if (plugged && patterns != null) {
                patterns.realTime(status);
            }
        }

        @Override
        public void sendSongPosition(int sixteenths) {
            PatternSequencer patterns = sequencer;
            if (plugged && patterns != null) {
                patterns.songPosition(sixteenths);
            }
        }

        @Override
        public void close() {
            closeSound();
        }
    }
}
