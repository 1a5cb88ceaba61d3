package dibble.ports;

import java.util.ArrayList;
import java.util.List;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;
import uk.co.xfactorylibrarians.coremidi4j.CoreMidiDeviceProvider;

/** The MIDI ports that this machine has now, as the JDK's device service names them. */
public final class MachinePorts {
    /** On macOS the JDK's own ports stop working when one is plugged in or out, and lose system exclusive. */
    private static final boolean CORE_MIDI = System.getProperty("os.name").startsWith("Mac");

    /** The prefix that the provider for macOS adds to port names; users never see it elsewhere. */
    private static final String CORE_MIDI_MARK = "CoreMIDI4J - ";

    private MachinePorts() {}

    /**
     * A port of this machine.
     *
     * @param info the identity of the port in the device service
     * @param plays whether events come from it
     * @param hears whether messages can be sent to it
     */
    public record Found(MidiDevice.Info info, boolean plays, boolean hears) {
        public String name() {
            String name = info.getName();
            return name.startsWith(CORE_MIDI_MARK) ? name.substring(CORE_MIDI_MARK.length()) : name;
        }

        public String vendor() {
            return info.getVendor();
        }

        public String description() {
            return info.getDescription();
        }
    }

    private static MidiDevice.Info[] infos() {
        return CORE_MIDI ? CoreMidiDeviceProvider.getMidiDeviceInfo() : MidiSystem.getMidiDeviceInfo();
    }

    /** Returns all ports except devices that refuse to describe themselves. */
    public static List<Found> list() {
        List<Found> found = new ArrayList<>();
        for (MidiDevice.Info info : infos()) {
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
