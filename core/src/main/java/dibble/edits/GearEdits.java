package dibble.edits;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.session.Colours;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Edits of sources, instruments and parts, as functions from a session to the changed one. */
public final class GearEdits {
    private GearEdits() {}

    /** Changes the source with this id. */
    public static Session changeSource(Session session, String id, UnaryOperator<Source> change) {
        return session.withSources(session.sources().stream()
                .map(source -> source.id().equals(id) ? change.apply(source) : source)
                .toList());
    }

    /** Adds a source behind the others. */
    public static Session addSource(Session session, Source source) {
        return session.withSources(Lists.with(session.sources(), source));
    }

    /** Takes a source out, with its zones and control maps: they would play nothing any more. */
    public static Session deleteSource(Session session, String id) {
        Session without = ZoneEdits.eachZoneList(
                        session,
                        zones -> zones.stream()
                                .filter(zone -> !zone.source().equals(id))
                                .toList())
                .withSources(session.sources().stream()
                        .filter(source -> !source.id().equals(id))
                        .toList());
        Session quiet = ControlEdits.eachList(
                without,
                maps -> maps.stream().filter(map -> !map.source().equals(id)).toList());
        return quiet.sceneSwitch() != null && quiet.sceneSwitch().source().equals(id)
                ? quiet.withSceneSwitch(null)
                : quiet;
    }

    /** Adds an instrument behind the others. */
    public static Session addInstrument(Session session, Instrument instrument) {
        return session.withInstruments(Lists.with(session.instruments(), instrument));
    }

    /** Changes the instrument with this id. */
    public static Session changeInstrument(Session session, String id, UnaryOperator<Instrument> change) {
        return session.withInstruments(session.instruments().stream()
                .map(instrument -> instrument.id().equals(id) ? change.apply(instrument) : instrument)
                .toList());
    }

    /** Moves an instrument up (-1) or down (1) among the others. */
    public static Session moveInstrument(Session session, String id, int by) {
        return session.withInstruments(
                Lists.moved(session.instruments(), it -> it.id().equals(id), by));
    }

    /** Moves a source up (-1) or down (1) among the others. */
    public static Session moveSource(Session session, String id, int by) {
        return session.withSources(Lists.moved(session.sources(), it -> it.id().equals(id), by));
    }

    /** Takes an instrument out, with the zones that lead to it. */
    public static Session deleteInstrument(Session session, String id) {
        return ZoneEdits.eachZoneList(
                        session,
                        zones -> zones.stream()
                                .filter(zone -> !zone.to().instrument().equals(id))
                                .toList())
                .withInstruments(session.instruments().stream()
                        .filter(instrument -> !instrument.id().equals(id))
                        .toList());
    }

    /** Adds a part to an instrument, at an index among its parts, and gives it an unused color. */
    public static Session addPart(Session session, String instrument, Part part, int place) {
        Session longer = changeInstrument(session, instrument, it -> {
            List<Part> parts = new ArrayList<>(it.parts());
            parts.add(Math.min(place, parts.size()), part.withColour(0));
            return it.withParts(parts);
        });
        return longer.withInstruments(Colours.give(longer.instruments()));
    }

    /** Takes a part out, with the zones that lead to it. */
    public static Session deletePart(Session session, PartRef ref) {
        Session without = ZoneEdits.eachZoneList(
                session,
                zones -> zones.stream()
                        .filter(zone -> !ZoneEdits.leadsTo(zone.to(), ref))
                        .toList());
        return changeInstrument(
                without,
                ref.instrument(),
                it -> it.withParts(it.parts().stream()
                        .filter(part -> !part.id().equals(ref.part()))
                        .toList()));
    }

    /** Moves a part up (-1) or down (1) among those of its instrument. */
    public static Session movePart(Session session, PartRef ref, int by) {
        return changeInstrument(
                session,
                ref.instrument(),
                it -> it.withParts(Lists.moved(it.parts(), part -> part.id().equals(ref.part()), by)));
    }

    /** Changes a part. */
    public static Session changePart(Session session, PartRef ref, UnaryOperator<Part> change) {
        return session.withInstruments(session.instruments().stream()
                .map(instrument -> !instrument.id().equals(ref.instrument())
                        ? instrument
                        : instrument.withParts(instrument.parts().stream()
                                .map(part -> part.id().equals(ref.part()) ? change.apply(part) : part)
                                .toList()))
                .toList());
    }
}
