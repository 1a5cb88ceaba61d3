package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.IoWords;
import dibble.files.SessionContent;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.midi.MidiFile;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.Bounce;
import dibble.sound.SoundLibrary;
import dibble.text.Texts;
import dibble.text.UserException;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble render}: WAV files of a session. */
@Command(name = "render")
final class RenderCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "SESSION", descriptionKey = "session")
    private String sessionFile;

    @Parameters(index = "1", paramLabel = "IN.mid", arity = "0..1", descriptionKey = "in")
    private String input;

    @Option(
            names = {"-o", "--output"},
            required = true,
            paramLabel = "FOLDER",
            descriptionKey = "output")
    private String output;

    @Option(names = "--rate", paramLabel = "RATE", defaultValue = "44100", descriptionKey = "rate")
    private int rate;

    @Option(names = "--bits", paramLabel = "BITS", defaultValue = "24", descriptionKey = "bits")
    private String bits;

    @Option(names = "--tail", paramLabel = "SECONDS", defaultValue = "-1", descriptionKey = "tail")
    private double tail;

    @Option(names = "--parts", paramLabel = "PART", split = ",", descriptionKey = "parts")
    private List<String> parts = List.of();

    @Option(names = "--mix-only", descriptionKey = "mix-only")
    private boolean mixOnly;

    @Option(names = "--sounds", paramLabel = "FOLDER", descriptionKey = "sounds")
    private List<String> sounds = List.of();

    @Option(names = "--scene", paramLabel = "ID", descriptionKey = "scene")
    private String scene;

    @Mixin
    private SourceOptions sourceOfTrack;

    @Override
    public Integer call() throws IOException {
        if (input == null && (scene != null || !sourceOfTrack.isEmpty())) {
            throw new BadInput(say("render-command.scene-and-source"));
        }
        Bounce.Bits format = format();
        SessionContent opened = files.session(sessionFile);
        Session session = opened.session();
        Performance performance = SessionInput.inScene(opened, scene, sessionFile);
        Bounce.Wanted wanted;
        try {
            wanted = new Bounce.Wanted(rate, format, tail, wantedParts(session), mixOnly);
        } catch (UserException e) {
            throw new BadInput(e.getMessage());
        }
        OfflinePlayback music = music(session, performance);
        files.checkOutput(output);
        Path folder = InOut.path(sessionFile).toAbsolutePath().getParent();
        SoundLibrary sounds = SoundLibrary.open(session.soundFiles(), folder, soundFolders(), SoundLibrary.NONE);
        sounds.troubles().forEach(files::tell);
        sounds.withheld().forEach(it -> files.tell(say("render-command.sounds-withheld", it)));
        try {
            tell(
                    Bounce.render(
                            music,
                            SoundPlan.of(session, performance),
                            sounds.banks(),
                            wanted,
                            InOut.path(output),
                            Progress.NONE),
                    format);
        } catch (IOException e) {
            throw new BadInput(output + ": " + IoWords.of(e));
        }
        return 0;
    }

    private Set<String> soundFolders() {
        return sounds.stream()
                .map(it -> InOut.path(it).toAbsolutePath().normalize().toString())
                .collect(Collectors.toSet());
    }

    private Bounce.Bits format() {
        return Arrays.stream(Bounce.Bits.values())
                .filter(it -> it.word().equals(bits))
                .findFirst()
                .orElseThrow(() -> new BadInput(say(
                        "render-command.bits-expected",
                        bits,
                        Arrays.stream(Bounce.Bits.values())
                                .map(Bounce.Bits::word)
                                .collect(Collectors.joining(", ")))));
    }

    private OfflinePlayback music(Session session, Performance performance) {
        if (input == null) {
            OfflinePlayback music = OfflinePlayback.ofTracks(session, performance);
            if (music.length() == 0) {
                throw new BadInput(say("render-command.nothing-to-play", sessionFile));
            }
            return music;
        }
        MidiFile midi = files.midi(input);
        if (midi.division() < 0) {
            throw new BadInput(input + ": " + say("render-command.frames"));
        }
        return OfflinePlayback.ofFile(session, performance, midi, sourceOfTrack.ofTracks(session, midi, input, files));
    }

    private Set<PartRef> wantedParts(Session session) {
        Set<PartRef> wanted = new LinkedHashSet<>();
        for (String name : parts) {
            Set<PartRef> named = new LinkedHashSet<>();
            Set<String> all = new LinkedHashSet<>();
            for (Instrument instrument : session.instruments()) {
                for (Part part : instrument.parts()) {
                    PartRef ref = instrument.ref(part);
                    if (instrument.builtIn()) {
                        all.add(ref.toString());
                        if (List.of(ref.toString(), part.id(), part.name()).stream()
                                .anyMatch(it -> it.equalsIgnoreCase(name.strip()))) {
                            named.add(ref);
                        }
                    }
                }
            }
            if (named.isEmpty()) {
                throw new BadInput(say("render-command.no-part-expected", name, String.join(", ", all)));
            }
            wanted.addAll(named);
        }
        return wanted;
    }

    private void tell(Bounce.Made made, Bounce.Bits format) {
        for (Path file : made.files()) {
            print(say("render-command.made", file, Texts.decimal(made.seconds())));
        }
        if (!made.leftOut().isEmpty()) {
            files.tell(say("render-command.left-out", String.join(", ", made.leftOut())));
        }
        if (made.peak() > 0 && format != Bounce.Bits.FLOAT) {
            files.tell(say("render-command.too-loud", Texts.decimal(made.peak())));
        }
    }
}
