package dibble.files;

import dibble.gear.BankSelect;
import dibble.gear.SoundNames;
import dibble.text.XmlText;
import java.util.Map;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes the elements of a device name document (MIDNAM 1.0). */
final class MidnamWriter {
    private static final String NAMES = "Names";
    private static final String NOTES = "Notes";
    private static final String CONTROLS = "Controls";
    private static final int CHANNELS = 16;

    private final XMLStreamWriter out;

    MidnamWriter(XMLStreamWriter out) {
        this.out = out;
    }

    void write(SoundNames names) throws XMLStreamException {
        out.writeStartElement("MIDINameDocument");
        element("Author", "");
        out.writeStartElement("MasterDeviceNames");
        element("Manufacturer", names.maker());
        element("Model", names.model());
        out.writeStartElement("CustomDeviceMode");
        out.writeAttribute("Name", "Default");
        out.writeStartElement("ChannelNameSetAssignments");
        for (int channel = 1; channel <= CHANNELS; channel++) {
            empty("ChannelNameSetAssign", "Channel", String.valueOf(channel), "NameSet", NAMES);
        }
        out.writeEndElement();
        out.writeEndElement();
        out.writeStartElement("ChannelNameSet");
        out.writeAttribute("Name", NAMES);
        out.writeStartElement("AvailableForChannels");
        for (int channel = 1; channel <= CHANNELS; channel++) {
            empty("AvailableChannel", "Channel", String.valueOf(channel), "Available", "true");
        }
        out.writeEndElement();
        if (!names.notes().isEmpty()) {
            empty("UsesNoteNameList", "Name", NOTES);
        }
        if (!names.controllers().isEmpty()) {
            empty("UsesControlNameList", "Name", CONTROLS);
        }
        for (int i = 0; i < names.banks().size(); i++) {
            bank(names.banks().get(i), i, names.bankSelect());
        }
        out.writeEndElement();
        list("NoteNameList", NOTES, "Note", names.notes());
        controls(names.controllers());
        out.writeEndElement();
        out.writeEndElement();
    }

    private void bank(SoundNames.Bank bank, int place, BankSelect by) throws XMLStreamException {
        out.writeStartElement("PatchBank");
        out.writeAttribute("Name", XmlText.of(bank.name()));
        out.writeStartElement("MIDICommands");
        if (by != BankSelect.FINE) {
            control(0, bank.numbers().get(0));
        }
        if (by != BankSelect.COARSE) {
            control(32, bank.numbers().get(1));
        }
        out.writeEndElement();
        out.writeStartElement("PatchNameList");
        out.writeAttribute("Name", "Bank " + (place + 1));
        for (SoundNames.Program program : bank.programs()) {
            String label = program.label().isEmpty() ? String.valueOf(program.program() + 1) : program.label();
            empty("Patch", "Number", label, "Name", program.name(), "ProgramChange", String.valueOf(program.program()));
        }
        out.writeEndElement();
        out.writeEndElement();
    }

    private void control(int number, int value) throws XMLStreamException {
        empty("ControlChange", "Control", String.valueOf(number), "Value", String.valueOf(value));
    }

    private void list(String name, String called, String item, Map<Integer, String> names) throws XMLStreamException {
        if (!names.isEmpty()) {
            out.writeStartElement(name);
            out.writeAttribute("Name", called);
            for (Map.Entry<Integer, String> each : names.entrySet()) {
                empty(item, "Number", String.valueOf(each.getKey()), "Name", each.getValue());
            }
            out.writeEndElement();
        }
    }

    private void controls(Map<Integer, String> names) throws XMLStreamException {
        if (!names.isEmpty()) {
            out.writeStartElement("ControlNameList");
            out.writeAttribute("Name", CONTROLS);
            for (Map.Entry<Integer, String> each : names.entrySet()) {
                empty("Control", "Type", "7bit", "Number", String.valueOf(each.getKey()), "Name", each.getValue());
            }
            out.writeEndElement();
        }
    }

    private void element(String name, String text) throws XMLStreamException {
        out.writeStartElement(name);
        out.writeCharacters(XmlText.of(text));
        out.writeEndElement();
    }

    private void empty(String name, String... attributes) throws XMLStreamException {
        out.writeEmptyElement(name);
        for (int i = 0; i < attributes.length; i += 2) {
            out.writeAttribute(attributes[i], XmlText.of(attributes[i + 1]));
        }
    }
}
