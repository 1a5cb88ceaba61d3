package dibble.ports;

import dibble.midi.RealTime;
import dibble.midi.Status;
import java.util.Arrays;
import java.util.function.Consumer;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Transmitter;

/** An input port of this machine, open while it has a listener. */
final class MachineInput implements InputPort {
    private static final int MAX_EXCLUSIVE = 1 << 20;

    private final String name;
    private final MidiDevice.Info info;
    private final Consumer<String> trouble;
    private MidiDevice device;
    private Transmitter transmitter;
    private byte[] exclusive = {};

    /** @param trouble told why it could not be opened, or null when it could */
    MachineInput(String name, MidiDevice.Info info, Consumer<String> trouble) {
        this.name = name;
        this.info = info;
        this.trouble = trouble;
    }

    MidiDevice.Info info() {
        return info;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public synchronized boolean isOpen() {
        return transmitter != null;
    }

    @Override
    public synchronized void listen(Listener listener) {
        if (transmitter != null) {
            transmitter.close();
            transmitter = null;
            device.close();
        }
        if (listener == null) {
            return;
        }
        try {
            device = MidiSystem.getMidiDevice(info);
            device.open();
            transmitter = device.getTransmitter();
            transmitter.setReceiver(new Hearing(listener));
            trouble.accept(null);
        } catch (MidiUnavailableException | RuntimeException e) {
            trouble.accept(String.valueOf(e.getMessage()));
        }
    }

    /** Receives events on the device's thread. */
    private final class Hearing implements Receiver {
        private final Listener listener;

        Hearing(Listener listener) {
            this.listener = listener;
        }

        @Override
        public void send(MidiMessage message, long timeStamp) {
            int status = message.getStatus();
            if (message instanceof javax.sound.midi.ShortMessage channel
                    && dibble.midi.ShortMessage.isChannelStatus(status)) {
                listener.heard(status | channel.getData1() << 8 | channel.getData2() << 16);
            } else if (RealTime.isTransport(status)) {
                listener.heardRealTime(status);
            } else if (status == Status.SONG_POSITION && message instanceof javax.sound.midi.ShortMessage position) {
                listener.heardSongPosition(position.getData1() | position.getData2() << 7);
            } else if (status == Status.EXCLUSIVE || status == Status.EXCLUSIVE_END) {
                addExclusive(message.getMessage());
            }
        }

        /** System exclusive can come in pieces; a piece that goes on begins with 0xF7, which is not part of it. */
        private void addExclusive(byte[] piece) {
            boolean begins = (piece[0] & 0xFF) == Status.EXCLUSIVE;
            int from = begins ? 0 : 1;
            int kept = begins ? 0 : exclusive.length;
            if (kept + piece.length > MAX_EXCLUSIVE) {
                exclusive = new byte[0];
                return;
            }
            byte[] whole = Arrays.copyOf(exclusive, kept + piece.length - from);
            System.arraycopy(piece, from, whole, kept, piece.length - from);
            if (Status.endsExclusive(whole)) {
                exclusive = new byte[0];
                listener.heardExclusive(whole);
            } else {
                exclusive = whole;
            }
        }

        @Override
        public void close() {}
    }
}
