package dibble.presentation.gear;

import static dibble.presentation.UiText.say;

import dibble.edits.GearEdits;
import dibble.edits.NumberSeries;
import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SoundNames;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.ports.Devices;
import dibble.presentation.Choice;
import dibble.presentation.Selection;
import dibble.presentation.Words;
import dibble.programs.OwnPorts;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.session.ShelfItem;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * The presenter of the Gear view. A request about an object that has been deleted since the last frame does nothing.
 */
public final class GearPresenter {
    /** A kind of source that can be added, with the keys that it has. */
    public enum Size {
        FULL(say("gear-presenter.keyboard-88-keys"), SourceKind.KEYBOARD, new Range(21, 108)),
        STAGE(say("gear-presenter.keyboard-76-keys"), SourceKind.KEYBOARD, new Range(28, 103)),
        MIDDLE(say("gear-presenter.keyboard-61-keys"), SourceKind.KEYBOARD, new Range(36, 96)),
        SMALL(say("gear-presenter.keyboard-25-keys"), SourceKind.KEYBOARD, new Range(48, 72)),
        PADS(say("gear-presenter.pads-16"), SourceKind.PADS, new Range(36, 51)),
        PEDALS(say("gear-presenter.pedals-13"), SourceKind.PEDALS, new Range(36, 48)),
        CONTROLS(say("gear-presenter.knobs-and-sliders"), SourceKind.CONTROLS, Range.ALL),
        SEQUENCER(say("gear-presenter.sequencer"), SourceKind.SEQUENCER, Range.ALL);

        public final String title;
        final SourceKind kind;
        final Range keys;

        Size(String title, SourceKind kind, Range keys) {
            this.title = title;
            this.kind = kind;
            this.keys = keys;
        }
    }

    /** A kind of instrument that can be added. */
    public enum Sounds {
        BUILT_IN(say("gear-presenter.built-in-sounds"), say("gear-presenter.built-in"), true, 1),
        MODULE(say("gear-presenter.external-module"), say("gear-presenter.module"), false, 1),
        MODULE_16(say("gear-presenter.external-module-16-parts"), say("gear-presenter.module"), false, 16);

        public final String title;
        final boolean builtIn;
        private final String name;
        private final int parts;

        Sounds(String title, String name, boolean builtIn, int parts) {
            this.title = title;
            this.name = name;
            this.builtIn = builtIn;
            this.parts = parts;
        }
    }

    private List<SoundNames> shelfNames = List.of();
    private final Document document;
    private final Selection selection;
    private final Devices devices;
    private final Supplier<Set<String>> hidden;

    /** @param hidden the ports that are not offered */
    public GearPresenter(Document document, Selection selection, Devices devices, Supplier<Set<String>> hidden) {
        this.document = document;
        this.selection = selection;
        this.devices = devices;
        this.hidden = hidden;
    }

    /** Adds a source on a new stand-in port, and selects it. */
    public void addSource(Size size) {
        Session session = session();
        String title = size.title.replaceAll(",.*", "");
        String id = Ids.fresh(title, taken -> session.source(taken).isPresent());
        Source source = Source.keyboard(id, title + number(id), PortId.standIn(id), size.keys)
                .with()
                .kind(size.kind)
                .build();
        document.edit(say("edit.new-source"), before -> GearEdits.addSource(before, source));
        select(id);
    }

    /** Returns the number at the end of an id that is not the first of its kind, as a separate word. */
    private static String number(String id) {
        String number = id.replaceAll(".*?(-(\\d+))?$", "$2");
        return number.isEmpty() ? "" : " " + number;
    }

    /** Selects a source. */
    public void select(String source) {
        selection.sourceAlone(source);
    }

    /** Selects a part. */
    public void select(PartRef part) {
        selection.partAlone(part.toString());
    }

    /** Looks at an instrument as a whole. */
    public void select(Instrument instrument) {
        selection.instrumentAlone(instrument.id());
    }

    /** Selects a part beside those that are selected, or no longer. */
    public void selectAlso(PartRef part) {
        selection.instrument().set(null);
        selection.partAlso(part.toString());
    }

    /** Selects all parts from the last that was selected to another, in the order of the session. */
    public void selectTo(PartRef part) {
        List<PartRef> all = allParts();
        int from = selectedPart().map(all::indexOf).orElse(-1);
        int to = all.indexOf(part);
        if (from < 0) {
            select(part);
            return;
        }
        selection.parts().clear();
        all.subList(Math.min(from, to), Math.max(from, to) + 1)
                .forEach(ref -> selection.parts().add(ref.toString()));
        selection.part().set(part.toString());
    }

    private List<PartRef> allParts() {
        return session().instruments().stream()
                .flatMap(instrument -> instrument.parts().stream().map(instrument::ref))
                .toList();
    }

    /** The parts that are selected, in the order of the session. */
    public List<PartRef> selectedParts() {
        Set<String> chosen = selection.parts().get();
        if (chosen.isEmpty()) {
            return selectedPart().map(List::of).orElse(List.of());
        }
        return allParts().stream()
                .filter(ref -> chosen.contains(ref.toString()))
                .toList();
    }

    /** Returns the instrument that is selected, or whose part is. */
    public Optional<Instrument> selectedInstrument() {
        return session().instrument(selection.instrument().get());
    }

    /** Deletes a source with its zones. */
    public void deleteSource(String id) {
        document.edit(say("edit.delete-source"), session -> GearEdits.deleteSource(session, id));
        select(session().sources().stream().findFirst().map(Source::id).orElse(null));
    }

    /** Changes a source as one step of undo. */
    public void changeSource(String what, String id, UnaryOperator<Source> change) {
        document.edit(what, session -> GearEdits.changeSource(session, id, change));
    }

    void letIn(String id, int channel, boolean in) {
        changeSource(say("edit.listen-channels"), id, source -> {
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

    /** Adds an instrument on a new stand-in port, and selects it. */
    public void addInstrument(Sounds sounds) {
        Session session = session();
        String id = Ids.fresh(sounds.name, taken -> session.instrument(taken).isPresent());
        List<Part> parts = IntStream.rangeClosed(1, sounds.parts)
                .mapToObj(number -> {
                    String part = number == 1 ? "part" : "part-" + number;
                    String name = sounds.parts == 1 ? say("gear-presenter.part") : say("gear-presenter.part-2", number);
                    return Part.of(part, name, null, 0, Range.ALL, 0);
                })
                .toList();
        Instrument fresh = Instrument.of(id, sounds.name + number(id), sounds.builtIn, PortId.standIn(id), List.of());
        document.edit(say("edit.new-instrument"), before -> {
            Session longer = GearEdits.addInstrument(before, fresh);
            for (Part part : parts) {
                longer = GearEdits.addPart(longer, id, part, Integer.MAX_VALUE);
            }
            return longer;
        });
        select(session().instrument(id).orElseThrow());
    }

    /** The names of sounds that are kept on the gear shelf. */
    public void keepShelfNames(List<SoundNames> names) {
        shelfNames = names;
    }

    /**
     * Returns the known names of sounds for an instrument: its own, and those of the session and the gear shelf. Names
     * for its model come first.
     */
    public List<SoundNames> knownNames(Instrument of) {
        return Stream.concat(
                        Stream.concat(Stream.of(of), session().instruments().stream())
                                .map(Instrument::names)
                                .filter(Objects::nonNull),
                        shelfNames.stream())
                .distinct()
                .sorted(Comparator.comparing(names -> !names.isCalled(of.name())))
                .toList();
    }

    /** Changes an instrument as one step of undo. */
    public void changeInstrument(String what, String id, UnaryOperator<Instrument> change) {
        document.edit(what, session -> GearEdits.changeInstrument(session, id, change));
    }

    /** Moves an instrument down by some places, or up by a negative number. */
    public void moveInstrument(String id, int by) {
        document.edit(say("edit.move-instrument"), session -> GearEdits.moveInstrument(session, id, by));
    }

    /** Moves a source down by some places, or up by a negative number. */
    public void moveSource(String id, int by) {
        document.edit(say("edit.move-source"), session -> GearEdits.moveSource(session, id, by));
    }

    /** Adds a copy of an instrument behind the others, on a new stand-in port. */
    public void duplicateInstrument(String id) {
        Instrument instrument = session().instrument(id).orElse(null);
        if (instrument == null) {
            return;
        }
        ShelfItem like = new ShelfItem(
                instrument.name(),
                List.of(),
                List.of(instrument
                        .withName(say("gear-presenter.copy", instrument.name()))
                        .withPort(PortId.standIn(id))),
                List.of(),
                ShelfItem.Places.NONE);
        add(like, ShelfItem.Places.NONE);
    }

    /** Adds an item of the shelf, and selects it. Returns the number of zones without a target. */
    public int add(ShelfItem item, ShelfItem.Places found) {
        ShelfItem.Added[] added = new ShelfItem.Added[1];
        document.edit(say("edit.add", item.name()), session -> {
            added[0] = item.addTo(session, found);
            return added[0].session();
        });
        for (String id : added[0].added()) {
            session().instrument(id).ifPresent(this::select);
            session().source(id).ifPresent(it -> select(id));
        }
        return added[0].left();
    }

    /** A source as the gear shelf keeps it; empty where it is gone. */
    public Optional<ShelfItem> sourceToKeep(String id, boolean withZones) {
        return session().source(id).map(it -> ShelfItem.ofSource(session(), document.performance(), id, withZones));
    }

    /** An instrument as the gear shelf keeps it; empty where it is gone. */
    public Optional<ShelfItem> instrumentToKeep(String id, boolean withZones) {
        return session()
                .instrument(id)
                .map(it -> ShelfItem.ofInstrument(session(), document.performance(), id, withZones));
    }

    /** The zones of now as the gear shelf keeps them. */
    public ShelfItem zonesToKeep() {
        return ShelfItem.ofZones(
                session(),
                document.performance(),
                say("gear-presenter.zones-of", session().name()));
    }

    /** Deletes an instrument with its parts. */
    public void deleteInstrument(String id) {
        selection.part().set(null);
        selection.parts().clear();
        selection.instrument().set(null);
        document.edit(say("edit.delete-instrument"), session -> GearEdits.deleteInstrument(session, id));
    }

    /** Adds a part behind the others, and selects it. */
    public void addPart(String id) {
        session()
                .instrument(id)
                .ifPresent(instrument -> add(
                        instrument,
                        Part.of(freshId(instrument, "part"), say("gear-presenter.part"), null, 0, Range.ALL, 0),
                        instrument.parts().size()));
    }

    /** Adds a copy of a part behind it, on a separate channel. */
    public void duplicatePart(PartRef ref) {
        session()
                .instrument(ref.instrument())
                .ifPresent(instrument -> instrument.part(ref.part()).ifPresent(part -> {
                    Part like = part.with()
                            .id(freshId(instrument, part.id()))
                            .name(say("gear-presenter.copy", part.name()))
                            .channel(null)
                            .build();
                    add(instrument, like, instrument.parts().indexOf(part) + 1);
                }));
    }

    private void add(Instrument instrument, Part part, int place) {
        document.edit(say("edit.new-part"), session -> GearEdits.addPart(session, instrument.id(), part, place));
        select(instrument.ref(part));
    }

    private static String freshId(Instrument instrument, String name) {
        return Ids.fresh(name, taken -> instrument.part(taken).isPresent());
    }

    /** Deletes a part. */
    public void deletePart(PartRef ref) {
        selection.part().set(null);
        selection.parts().clear();
        document.edit(say("edit.delete-part"), session -> GearEdits.deletePart(session, ref));
    }

    /** Moves a part down by some places, or up by a negative number. */
    public void movePart(PartRef ref, int by) {
        document.edit(say("edit.move-part"), session -> GearEdits.movePart(session, ref, by));
    }

    /** Changes a part as one step of undo. */
    public void changePart(String what, PartRef ref, UnaryOperator<Part> change) {
        document.edit(what, session -> GearEdits.changePart(session, ref, change));
    }

    /** Numbers the selected parts in a series. */
    public void plant(NumberSeries plant) {
        document.edit(say("edit.plant"), plant::apply);
    }

    Optional<PartRef> selectedPart() {
        return Optional.ofNullable(selection.part().get())
                .map(PartRef::parse)
                .filter(ref -> session().part(ref).isPresent());
    }

    /** Returns true if there is anything to show details of. */
    public boolean hasSelection() {
        return !selectedParts().isEmpty()
                || selectedInstrument().isPresent()
                || selectedSource().isPresent();
    }

    /** Returns the selected source. */
    public Optional<Source> selectedSource() {
        return Optional.ofNullable(selection.source().get()).flatMap(session()::source);
    }

    /** Adds a source on a port on which the user played. Returns its id. */
    public String addSourceOn(String port) {
        String name = SessionFormatter.port(port, session());
        String id = Ids.fresh(name, taken -> session().source(taken).isPresent());
        document.edit(
                say("edit.new-source"),
                session -> GearEdits.addSource(session, Source.keyboard(id, name, port, Size.FULL.keys)));
        return id;
    }

    /** The zones that a source plays, always or in the scene that is active. */
    public List<Zone> zonesOf(String source) {
        return document.routing().zones().stream()
                .filter(zone -> zone.source().equals(source))
                .toList();
    }

    /** The ports that can be chosen: those that are there, and the one in use where it is not. */
    /** The ports that a source or an instrument can be on; a port of our own among other programs bears its id. */
    public List<Choice<String>> portChoices(String id, String used, String... also) {
        Set<String> names = new LinkedHashSet<>(List.of(used));
        names.addAll(devices.inputs());
        names.addAll(devices.outputs());
        names.removeIf(name -> OwnPorts.isOwn(name) && !name.equals(used));
        names.add(new PortId.Program(id).text());
        names.addAll(List.of(also));
        return names.stream()
                .filter(name -> name.equals(used) || !hidden.get().contains(name))
                .map(name -> new Choice<>(name, Words.portInList(name, session())))
                .toList();
    }

    /** Returns the session now. */
    public Session session() {
        return document.session();
    }
}
