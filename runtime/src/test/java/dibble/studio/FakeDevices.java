package dibble.studio;

import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.IntConsumer;

/** Ports that come and go, and keep what they were sent. */
final class FakeDevices implements Devices {
    final Map<String, In> ins = new ConcurrentHashMap<>();
    final Map<String, Out> outs = new ConcurrentHashMap<>();

    final Set<String> serial = new HashSet<>();

    @Override
    public String kind() {
        return "fake";
    }

    @Override
    public void onChange(Runnable listener) {
        // These never change by themselves.
    }

    @Override
    public void close() {
        // Nothing is open.
    }

    /** A port that is played by a test. */
    static final class In implements InputPort {
        private final String name;
        private volatile Listener listener;

        In(String name) {
            this.name = name;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public void listen(Listener heard) {
            listener = heard;
        }

        void play(int... messages) {
            Listener to = listener;
            for (int message : messages) {
                if (to != null) {
                    to.heard(message);
                }
            }
        }

        /** Delivers a message after its stamp, as a sound server does. */
        void playLate(int message, long stamp) {
            listener.heard(message, stamp);
        }

        void goAway() {
            listener.gone();
        }

        void playExclusive(byte... message) {
            listener.heardExclusive(message);
        }
    }

    /** A port that keeps what it is sent. */
    static final class Out implements OutputPort {
        private final String name;
        final List<Integer> sent = new CopyOnWriteArrayList<>();
        final List<byte[]> exclusive = new CopyOnWriteArrayList<>();
        final List<Integer> realTimes = new CopyOnWriteArrayList<>();
        volatile IntConsumer echo = message -> {};
        volatile boolean fails;

        Out(String name) {
            this.name = name;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(int message, long stamp) {
            sent.add(message);
            echo.accept(message);
        }

        @Override
        public void sendExclusive(byte[] message) {
            exclusive.add(message);
        }

        @Override
        public void sendRealTime(int status) {
            if (fails) {
                throw new IllegalStateException("unplugged");
            }
            realTimes.add(status);
        }
    }

    In in(String name) {
        return ins.computeIfAbsent(name, In::new);
    }

    Out out(String name) {
        return outs.computeIfAbsent(name, Out::new);
    }

    @Override
    public Optional<InputPort> input(String name) {
        return Optional.ofNullable(ins.get(name));
    }

    @Override
    public Optional<OutputPort> output(String name) {
        return Optional.ofNullable(outs.get(name));
    }

    @Override
    public boolean isCurrent(String name, OutputPort port) {
        return outs.get(name) == port;
    }

    @Override
    public List<String> inputs() {
        return new ArrayList<>(ins.keySet());
    }

    @Override
    public List<String> outputs() {
        return new ArrayList<>(outs.keySet());
    }

    @Override
    public boolean isSerial(String name) {
        return serial.contains(name);
    }
}
