package dibble.ports;

import java.util.ArrayList;
import java.util.List;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;

/** The MIDI ports that this machine has now, as the JDK's device service names them. */
public final class MachinePorts {
    private MachinePorts() {}

    /**
     * A port of this machine.
     *
     * @param info what the device service knows it by
     * @param plays whether events come from it
     * @param hears whether messages can be sent to it
     */
    public record Found(MidiDevice.Info info, boolean plays, boolean hears) {
        public String name() {
            return info.getName();
        }

        public String vendor() {
            return info.getVendor();
        }

        public String description() {
            return info.getDescription();
        }
    }

    /** All ports; a device that refuses to tell what it is, is left out. */
    public static List<Found> list() {
        List<Found> found = new ArrayList<>();
        for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
            try {
                MidiDevice device = MidiSystem.getMidiDevice(info);
                if (!(device instanceof Synthesizer) && !(device instanceof Sequencer)) {
                    found.add(new Found(info, device.getMaxTransmitters() != 0, device.getMaxReceivers() != 0));
                }
            } catch (MidiUnavailableException | IllegalArgumentException e) {
                // It went between the question and the answer.
                continue;
            }
        }
        return found;
    }
}
