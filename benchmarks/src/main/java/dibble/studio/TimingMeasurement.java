package dibble.studio;

import dibble.midi.MidiTrack;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.ClockFollower;
import dibble.transport.ClockSender;
import dibble.transport.PlaybackPlan;
import dibble.transport.PlaybackTimebase;
import dibble.transport.Player;
import dibble.transport.Timeline;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequence;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Track;

/**
 * Measures the lateness of playback, next to the JDK's sequencer, which plays the same music in the same process at the
 * same time. The argument is the duration in minutes.
 */
public final class TimingMeasurement {
    private static final int A_SECOND = 20;

    private TimingMeasurement() {}

    /** Lateness of each event, as it comes. */
    private static final class Late {
        private final long[] times;
        private int count;

        Late(int most) {
            times = new long[most];
        }

        void came() {
            if (count < times.length) {
                times[count++] = System.nanoTime();
            }
        }

        /** Since the event that came the soonest after it was due: neither says when it began. */
        void report(String who, Timeline timeline) {
            long[] late = new long[count];
            for (int i = 0; i < count; i++) {
                late[i] = times[i] - timeline.nanos(i);
            }
            long soonest = Arrays.stream(late).min().orElse(0);
            for (int i = 0; i < count; i++) {
                late[i] -= soonest;
            }
            Arrays.sort(late);
            System.out.printf(
                    "%-22s %d events: median %.3f ms, 99 %% %.3f ms, 99.9 %% %.3f ms, worst %.3f ms%n",
                    who,
                    count,
                    late[count / 2] / 1e6,
                    late[(int) (count * 0.99)] / 1e6,
                    late[(int) (count * 0.999)] / 1e6,
                    late[count - 1] / 1e6);
        }
    }

    /** Measures the jitter of the sent clock, and of the follower. */
    private static final class Jitter implements ClockSender.Out {
        private static final int QUARTER = 24;
        private static final double EACH = 500_000_000.0 / QUARTER;

        private final long[] sent;
        private final double[] followed;
        private final ClockFollower follower;
        private int count;

        Jitter(int most, ClockFollower follower) {
            sent = new long[most];
            followed = new double[most];
            this.follower = follower;
        }

        @Override
        public void realTime(int status) {
            long now = System.nanoTime();
            follower.heard(status, now);
            if (status == RealTime.CLOCK && count < sent.length) {
                sent[count] = now;
                followed[count] = follower.nanos();
                count++;
            }
        }

        @Override
        public void songPosition(int sixteenths) {}

        void report() {
            double[] between = new double[count - 1];
            for (int i = 1; i < count; i++) {
                between[i - 1] = Math.abs(sent[i] - sent[i - 1] - EACH);
            }
            // Over a quarter note, which musicians hear as tempo.
            double[] tempo = new double[count - QUARTER];
            for (int i = QUARTER; i < count; i++) {
                double rate = (followed[i] - followed[i - QUARTER]) / (sent[i] - sent[i - QUARTER]);
                tempo[i - QUARTER] = Math.abs(rate - 1) * 100;
            }
            Arrays.sort(between);
            Arrays.sort(tempo);
            System.out.printf(
                    "clock sent, 24 a quarter: %d, from one to the next off by %.3f ms in the median, %.3f at 99.9 %%,"
                            + " %.3f at worst%n",
                    count,
                    between[between.length / 2] / 1e6,
                    between[(int) (between.length * 0.999)] / 1e6,
                    between[between.length - 1] / 1e6);
            System.out.printf(
                    "the same followed, over a quarter: tempo off by %.3f %% in the median, %.3f at 99.9 %%, %.3f at worst%n",
                    tempo[tempo.length / 2], tempo[(int) (tempo.length * 0.999)], tempo[tempo.length - 1]);
        }
    }

    /** @param args minutes */
    public static void main(String[] args) throws Exception {
        int minutes = args.length > 0 ? Integer.parseInt(args[0]) : 10;
        int events = minutes * 60 * A_SECOND;
        TempoMap tempo = TempoMap.of(120);
        MidiTrack.Builder clip = new MidiTrack.Builder();
        Sequence sequence = new Sequence(Sequence.PPQ, TempoMap.PPQ);
        Track track = sequence.createTrack();
        for (int i = 0; i < events; i++) {
            // Not on the beat: 37 ticks are no round time.
            long tick = (long) i * TempoMap.PPQ * 2 / A_SECOND + 37L * (i % 3);
            clip.add(tick, ShortMessage.noteOn(0, 60, 80));
            track.add(new MidiEvent(
                    new javax.sound.midi.ShortMessage(javax.sound.midi.ShortMessage.NOTE_ON, 0, 60, 80), tick));
        }
        Timeline timeline = Timeline.of(List.of(clip.build()), tempo);
        Late ours = new Late(events);
        Late theirs = new Late(events);
        Sequencer sequencer = MidiSystem.getSequencer(false);
        sequencer.open();
        sequencer.getTransmitter().setReceiver(new Receiver() {
            @Override
            public void send(MidiMessage message, long stamp) {
                if (message instanceof javax.sound.midi.ShortMessage) {
                    theirs.came();
                }
            }

            @Override
            public void close() {}
        });
        sequencer.setSequence(sequence);
        PlaybackPlan.Out out = message -> {
            if (ShortMessage.startsNote(message)) {
                ours.came();
            }
        };
        ClockFollower follower = new ClockFollower(Clock.SYSTEM, tempo);
        Jitter jitter = new Jitter(minutes * 60 * 48 + 100, follower);
        ClockSender clock = new ClockSender(
                Clock.SYSTEM, PlaybackTimebase.of(tempo, 0, Clock.SYSTEM.nanos() + 10_000_000L), List.of(jitter));
        sequencer.start();
        Player player = new Player(
                "player",
                Clock.SYSTEM,
                new PlaybackPlan(
                        PlaybackTimebase.of(tempo, 0, Clock.SYSTEM.nanos()),
                        timeline,
                        List.of(new PlaybackPlan.PlannedTrack("one", out))));
        player.start();
        clock.start(0);
        while (player.isPlaying() || sequencer.isRunning()) {
            TimeUnit.MILLISECONDS.sleep(200);
        }
        clock.close();
        sequencer.close();
        player.close();
        System.out.printf("%d minutes, both at once in one process:%n", minutes);
        ours.report("Dibble", timeline);
        theirs.report("the JDK's sequencer", timeline);
        jitter.report();
    }
}
