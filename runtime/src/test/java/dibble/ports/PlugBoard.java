package dibble.ports;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Transmitter;
import javax.sound.midi.spi.MidiDeviceProvider;

/** Devices that tests plug in and out, registered with the JDK's device service as any other provider would be. */
public final class PlugBoard extends MidiDeviceProvider {
    private static final List<Plug> PLUGGED = new CopyOnWriteArrayList<>();

    /** A device: it plays, or it hears. */
    static final class Plug implements MidiDevice {
        private final Info info;
        private final boolean plays;
        final List<byte[]> heard = new CopyOnWriteArrayList<>();
        /** What happens while a message is on its way. */
        interface Sending {
            void send(byte[] message) throws InterruptedException;
        }

        volatile Sending whileSending = message -> {};
        volatile boolean refuses;
        volatile boolean fails;
        volatile boolean open;
        private volatile Receiver listener;

        Plug(String name, String description, boolean plays) {
            info = new PlugInfo(name, description);
            this.plays = plays;
        }

        void play(MidiMessage message) {
            Receiver to = listener;
            if (to != null) {
                to.send(message, -1);
            }
        }

        @Override
        public Info getDeviceInfo() {
            return info;
        }

        @Override
        public void open() throws MidiUnavailableException {
            if (refuses) {
                throw new MidiUnavailableException("in use by another program");
            }
            open = true;
        }

        @Override
        public void close() {
            open = false;
        }

        @Override
        public boolean isOpen() {
            return open;
        }

        @Override
        public long getMicrosecondPosition() {
            return -1;
        }

        @Override
        public int getMaxReceivers() {
            return plays ? 0 : -1;
        }

        @Override
        public int getMaxTransmitters() {
            return plays ? -1 : 0;
        }

        @Override
        public Receiver getReceiver() {
            return new Receiver() {
                @Override
                public void send(MidiMessage message, long timeStamp) {
                    if (fails) {
                        throw new IllegalStateException("cable out");
                    }
                    try {
                        whileSending.send(message.getMessage());
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    heard.add(message.getMessage());
                }

                @Override
                public void close() {}
            };
        }

        @Override
        public List<Receiver> getReceivers() {
            return List.of();
        }

        @Override
        public Transmitter getTransmitter() {
            return new Transmitter() {
                @Override
                public void setReceiver(Receiver receiver) {
                    listener = receiver;
                }

                @Override
                public Receiver getReceiver() {
                    return listener;
                }

                @Override
                public void close() {
                    listener = null;
                }
            };
        }

        @Override
        public List<Transmitter> getTransmitters() {
            return List.of();
        }
    }

    private static final class PlugInfo extends MidiDevice.Info {
        PlugInfo(String name, String description) {
            super(name, "Hedgerow", description, "1");
        }
    }

    static Plug plugIn(Plug plug) {
        PLUGGED.add(plug);
        return plug;
    }

    static void pullOut(Plug plug) {
        PLUGGED.remove(plug);
    }

    static void pullOutAll() {
        PLUGGED.clear();
    }

    @Override
    public MidiDevice.Info[] getDeviceInfo() {
        List<MidiDevice.Info> infos = new ArrayList<>();
        PLUGGED.forEach(plug -> infos.add(plug.info));
        return infos.toArray(MidiDevice.Info[]::new);
    }

    @Override
    public MidiDevice getDevice(MidiDevice.Info info) {
        return PLUGGED.stream()
                .filter(plug -> plug.info == info)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("not plugged in"));
    }
}
