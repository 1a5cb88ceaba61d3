package dibble.presentation.sounds;

import static dibble.presentation.UiText.say;

import dibble.edits.GearEdits;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SoundFile;
import dibble.midi.GeneralMidi;
import dibble.presentation.SoundPreview;
import dibble.session.Document;
import dibble.sound.Preset;
import dibble.sound.SoundBank;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** The presenter of the Sounds view. */
public final class SoundsPresenter {
    private final Document document;
    private final SoundPreview listening;
    private PartRef part;
    private String search = "";
    private String file;
    private boolean all = true;

    /** The built-in sounds; empty until they have been read. */
    private List<Preset> usual = List.of();

    /** Presents a document; sounds are heard through a preview. */
    public SoundsPresenter(Document document, SoundPreview listening) {
        this.document = document;
        this.listening = listening;
    }

    /** A sound that can be chosen. @param file the id of its file, or null for those that come with Dibble */
    public record Sound(String file, Preset preset) {}

    /** A file of sounds, or with a null id those that come with Dibble. */
    public record Bank(String id, String name, String path, int count, boolean missing) {}

    /** Sets the built-in sounds. */
    public void setUsual(List<Preset> presets) {
        usual = presets;
    }

    /** Chooses sounds for a part. */
    public void choose(PartRef ref) {
        part = ref;
    }

    /** The part that a sound is chosen for; the first of a built-in instrument where none was named. */
    public Optional<PartRef> target() {
        if (part != null && document.session().part(part).isPresent()) {
            return Optional.of(part);
        }
        return document.session().instruments().stream()
                .filter(instrument ->
                        instrument.builtIn() && !instrument.parts().isEmpty())
                .findFirst()
                .map(instrument -> instrument.ref(instrument.parts().get(0)));
    }

    /** Returns the parts that can have a sound. */
    public List<PartRef> parts() {
        List<PartRef> parts = new ArrayList<>();
        document.session().instruments().stream()
                .filter(dibble.gear.Instrument::builtIn)
                .forEach(instrument -> instrument.parts().forEach(it -> parts.add(instrument.ref(it))));
        return parts;
    }

    /** Shows only sounds whose names contain a text. */
    public void search(String text) {
        search = text.strip().toLowerCase(Locale.ROOT);
    }

    /** Shows one file's sounds, or with null those that come with Dibble. */
    public void only(String id) {
        file = id;
        all = false;
    }

    /** Shows the sounds of all files. */
    public void showAll() {
        all = true;
    }

    /** Returns true if the sounds of a file are shown. */
    public boolean isShown(String id) {
        return !all && java.util.Objects.equals(id, file);
    }

    /** Returns true if the sounds of all files are shown. */
    public boolean showsAll() {
        return all;
    }

    /** Returns the banks that are shown. */
    public List<Bank> banks() {
        List<Bank> banks = new ArrayList<>();
        banks.add(new Bank(null, say("sounds-view.own"), "", usual.size(), false));
        for (SoundFile it : document.session().soundFiles()) {
            SoundBank bank = listening.banks().get(it.id());
            banks.add(new Bank(
                    it.id(),
                    it.name(),
                    it.path(),
                    bank == null ? 0 : bank.presets().size(),
                    bank == null));
        }
        return banks;
    }

    /** Returns the sounds that match the search: all words in any order, in the name or as the number. */
    public List<Sound> sounds() {
        List<Sound> found = new ArrayList<>();
        if (all || file == null) {
            usual.forEach(preset -> add(found, null, preset));
        }
        for (SoundFile it : document.session().soundFiles()) {
            SoundBank bank = listening.banks().get(it.id());
            if (bank != null && (all || it.id().equals(file))) {
                bank.presets().forEach(preset -> add(found, it.id(), preset));
            }
        }
        return found;
    }

    private void add(List<Sound> to, String id, Preset preset) {
        Sound sound = new Sound(id, preset);
        String text = (preset.name() + " " + (preset.program() + 1) + " " + kind(sound) + " " + where(sound))
                .toLowerCase(Locale.ROOT);
        for (String word : search.split("\\s+")) {
            if (!text.contains(word)) {
                return;
            }
        }
        to.add(sound);
    }

    /** Returns the category of a sound: a kit, a family of General MIDI, or in other banks none. */
    public static String kind(Sound sound) {
        Preset preset = sound.preset();
        boolean plain = preset.bank().equals(List.of(0, 0));
        return preset.drums() ? say("sounds-view.kit") : plain ? GeneralMidi.family(preset.program()) : "";
    }

    /** Returns the origin of a sound: its file, and its bank if that is not the first. */
    public String where(Sound sound) {
        Preset preset = sound.preset();
        String file = sound.file() == null
                ? say(SoundBank.isOwn(preset) ? "sounds-view.own" : "sounds-view.java")
                : document.session()
                        .soundFile(sound.file())
                        .map(SoundFile::name)
                        .orElse(sound.file());
        boolean plain = preset.bank().equals(List.of(0, 0));
        return say(
                "sounds-view.where",
                file,
                plain,
                preset.bank().get(0),
                preset.bank().get(1));
    }

    /** Returns true if it is the sound that the part has. */
    public boolean isChosen(Sound sound) {
        Part of = target().flatMap(document.session()::part).orElse(null);
        return of != null
                && java.util.Objects.equals(of.soundFile(), sound.file())
                && of.program() != null
                && of.program() == sound.preset().program()
                && of.drums() == sound.preset().drums()
                && (of.bank() == null ? List.of(0, 0) : of.bank())
                        .equals(sound.preset().bank());
    }

    /** Gives the part a sound; drums name their keys. */
    public void take(Sound sound) {
        Preset preset = sound.preset();
        target().ifPresent(ref -> document.edit(
                say("edit.sound"),
                session -> GearEdits.changePart(
                        session,
                        ref,
                        it -> it.with()
                                .soundFile(sound.file())
                                .bank(preset.bank().equals(List.of(0, 0)) && it.bank() == null ? null : preset.bank())
                                .program(preset.program())
                                .drums(preset.drums())
                                .noteNames(
                                        preset.drums() && !preset.keyNames().isEmpty()
                                                ? named(it, preset)
                                                : it.noteNames())
                                .build())));
    }

    /** The names of the kit, beside those that it has none for. */
    private static Map<Integer, String> named(Part part, Preset preset) {
        Map<Integer, String> names = new TreeMap<>(preset.keyNames());
        if (part.drums() && part.program() != null && part.program() == preset.program()) {
            names.putAll(part.noteNames());
        }
        return names;
    }

    /** Plays a sound for a moment. */
    public void listen(Sound sound) {
        Preset preset = sound.preset();
        int key = preset.drums()
                ? preset.keyNames().keySet().stream()
                        .min(Comparator.naturalOrder())
                        .orElse(38)
                : target().flatMap(document.session()::part)
                        .map(it -> Math.max(
                                48, Math.min(72, (it.keys().low() + it.keys().high()) / 2)))
                        .orElse(60);
        listening.listen(sound.file(), preset, key);
    }
}
