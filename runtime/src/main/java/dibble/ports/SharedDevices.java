package dibble.ports;

import java.util.HashMap;
import java.util.Map;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiUnavailableException;

/** Devices that may be open more than once: who closes one leaves it open for the others. Any thread. */
final class SharedDevices {
    private final Map<MidiDevice, Integer> users = new HashMap<>();

    synchronized void open(MidiDevice device) throws MidiUnavailableException {
        if (!users.containsKey(device)) {
            device.open();
        }
        users.merge(device, 1, Integer::sum);
    }

    synchronized void close(MidiDevice device) {
        if (users.merge(device, -1, Integer::sum) == 0) {
            users.remove(device);
            device.close();
        }
    }
}
