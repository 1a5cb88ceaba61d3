package dibble.desktop.gear;

import dibble.desktop.ui.Desk;
import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.session.Edits;
import dibble.session.Plant;
import dibble.session.Session;
import dibble.standins.StandIns;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/** What the Gear view does to the session. */
final class GearPresenter {
    /** A kind of source that can be added, with the keys that it has. */
    enum Size {
        FULL("Keyboard, 88 keys", SourceKind.KEYBOARD, new Range(21, 108)),
        STAGE("Keyboard, 76 keys", SourceKind.KEYBOARD, new Range(28, 103)),
        MIDDLE("Keyboard, 61 keys", SourceKind.KEYBOARD, new Range(36, 96)),
        SMALL("Keyboard, 25 keys", SourceKind.KEYBOARD, new Range(48, 72)),
        PADS("Pads, 16", SourceKind.PADS, new Range(36, 51)),
        PEDALS("Pedals, 13", SourceKind.PEDALS, new Range(36, 48)),
        CONTROLS("Knobs and sliders", SourceKind.CONTROLS, Range.ALL),
        SEQUENCER("Sequencer", SourceKind.SEQUENCER, Range.ALL);

        final String title;
        final SourceKind kind;
        final Range keys;

        Size(String title, SourceKind kind, Range keys) {
            this.title = title;
            this.kind = kind;
            this.keys = keys;
        }
    }

    private final Desk desk;

    GearPresenter(Desk desk) {
        this.desk = desk;
    }

    /** Adds a source on a stand-in's port of its own, and selects it. */
    void addSource(Size size) {
        Session session = desk.session();
        String title = size.title.replaceAll(",.*", "");
        String id = Ids.fresh(title, taken -> session.source(taken).isPresent());
        Source source = Source.keyboard(id, title + number(id), StandIns.PREFIX + id, size.keys)
                .edit()
                .kind(size.kind)
                .build();
        desk.document().edit("new source", before -> Edits.addSource(before, source));
        select(id);
    }

    /** The number behind an id that is not the first of its kind, as a word of its own. */
    private static String number(String id) {
        String number = id.replaceAll(".*?(-(\\d+))?$", "$2");
        return number.isEmpty() ? "" : " " + number;
    }

    void select(String source) {
        desk.selection().part().set(null);
        desk.selection().source().set(source);
    }

    void select(PartRef part) {
        desk.selection().part().set(part.toString());
    }

    void deleteSource(String id) {
        desk.document().edit("delete source", session -> Edits.deleteSource(session, id));
        select(desk.session().sources().stream().findFirst().map(Source::id).orElse(null));
    }

    void changeSource(String what, String id, UnaryOperator<Source> change) {
        desk.document().edit(what, session -> Edits.changeSource(session, id, change));
    }

    void letIn(String id, int channel, boolean in) {
        changeSource("channels let in", id, source -> {
            TreeSet<Integer> numbers = new TreeSet<>(source.listen().numbers());
            if (in) {
                numbers.add(channel);
            } else {
                numbers.remove(channel);
            }
            return source.withListen(
                    ChannelSet.of(numbers.stream().mapToInt(Integer::intValue).toArray()));
        });
    }

    /** Adds an outside module with one part. */
    void addInstrument() {
        Session session = desk.session();
        String id = Ids.fresh("module", taken -> session.instrument(taken).isPresent());
        Instrument module = Instrument.of(id, "Module" + number(id), false, StandIns.PREFIX + id, List.of());
        Part part = Part.of("part", "Part", null, 0, Range.ALL, 0);
        desk.document()
                .edit("new instrument", before -> Edits.addPart(Edits.addInstrument(before, module), id, part, 0));
        select(new PartRef(id, "part"));
    }

    void changeInstrument(String what, String id, UnaryOperator<Instrument> change) {
        desk.document().edit(what, session -> Edits.changeInstrument(session, id, change));
    }

    void deleteInstrument(String id) {
        desk.selection().part().set(null);
        desk.document().edit("delete instrument", session -> Edits.deleteInstrument(session, id));
    }

    /** Adds a part behind the others, and selects it. */
    void addPart(Instrument instrument) {
        add(
                instrument,
                Part.of(freshId(instrument, "part"), "Part", null, 0, Range.ALL, 0),
                instrument.parts().size());
    }

    /** Adds the like of a part behind it, on a channel of its own. */
    void duplicatePart(PartRef ref) {
        Session session = desk.session();
        Instrument instrument = session.instrument(ref.instrument()).orElseThrow();
        Part part = session.part(ref).orElseThrow();
        Part like = part.edit()
                .id(freshId(instrument, part.id()))
                .name(part.name() + ", again")
                .channel(null)
                .build();
        add(instrument, like, instrument.parts().indexOf(part) + 1);
    }

    private void add(Instrument instrument, Part part, int place) {
        desk.document().edit("new part", session -> Edits.addPart(session, instrument.id(), part, place));
        select(instrument.ref(part));
    }

    private static String freshId(Instrument instrument, String name) {
        return Ids.fresh(name, taken -> instrument.part(taken).isPresent());
    }

    void deletePart(PartRef ref) {
        desk.selection().part().set(null);
        desk.document().edit("delete part", session -> Edits.deletePart(session, ref));
    }

    void movePart(PartRef ref, int by) {
        desk.document().edit("move part", session -> Edits.movePart(session, ref, by));
    }

    void changePart(String what, PartRef ref, UnaryOperator<Part> change) {
        desk.document().edit(what, session -> Edits.changePart(session, ref, change));
    }

    void plant(Plant plant) {
        desk.document().edit("plant channels", plant::apply);
    }

    Optional<PartRef> selectedPart() {
        return Optional.ofNullable(desk.selection().part().get())
                .map(PartRef::parse)
                .filter(ref -> desk.session().part(ref).isPresent());
    }

    Optional<Source> selectedSource() {
        return Optional.ofNullable(desk.selection().source().get()).flatMap(desk.session()::source);
    }
}
