package dibble.ports;

import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;

/**
 * An output port of this machine, open until it is closed. No message cuts into a system exclusive message that is being
 * sent, but for the clock, which the standard allows.
 */
final class MachineOutput implements OutputPort {
    /** Messages that are used in turn, so that sending makes no new ones; a device may look at one a little later. */
    private static final int IN_TURN = 1024;

    /** The stamp for immediate sending. */
    private static final long NOW = -1;

    private final String name;
    private final SharedDevices devices;
    private final MidiDevice device;
    private final Receiver receiver;
    private final ShortMessage[] messages = new ShortMessage[IN_TURN];
    private int next;

    /** Opens the port. */
    MachineOutput(String name, MidiDevice device, SharedDevices devices) throws MidiUnavailableException {
        this.name = name;
        this.device = device;
        this.devices = devices;
        devices.open(device);
        receiver = receiver();
        for (int i = 0; i < IN_TURN; i++) {
            messages[i] = new ShortMessage();
        }
    }

    private Receiver receiver() throws MidiUnavailableException {
        try {
            return device.getReceiver();
        } catch (MidiUnavailableException | RuntimeException e) {
            devices.close(device);
            throw e;
        }
    }

    @Override
    public String name() {
        return name;
    }

    MidiDevice.Info info() {
        return device.getDeviceInfo();
    }

    @Override
    public synchronized void send(int message, long stamp) {
        ShortMessage out = messages[next];
        next = (next + 1) % IN_TURN;
        try {
            out.setMessage(message & 0xFF, message >>> 8 & 0x7F, message >>> 16 & 0x7F);
        } catch (InvalidMidiDataException e) {
            throw new IllegalStateException("no channel message: " + Integer.toHexString(message), e);
        }
        receiver.send(out, NOW);
    }

    @Override
    public synchronized void sendExclusive(byte[] message) {
        try {
            receiver.send(new SysexMessage(message, message.length), NOW);
        } catch (InvalidMidiDataException e) {
            throw new IllegalStateException("no system exclusive message", e);
        }
    }

    @Override
    public void sendRealTime(int status) {
        try {
            receiver.send(new ShortMessage(status), NOW);
        } catch (InvalidMidiDataException e) {
            throw new IllegalStateException("no real-time message: " + Integer.toHexString(status), e);
        }
    }

    @Override
    public synchronized void sendSongPosition(int sixteenths) {
        try {
            receiver.send(
                    new ShortMessage(ShortMessage.SONG_POSITION_POINTER, sixteenths & 0x7F, sixteenths >> 7), NOW);
        } catch (InvalidMidiDataException e) {
            throw new IllegalStateException("no song position: " + sixteenths, e);
        }
    }

    @Override
    public void close() {
        receiver.close();
        devices.close(device);
    }
}
