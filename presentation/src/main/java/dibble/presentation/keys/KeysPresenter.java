package dibble.presentation.keys;

import static dibble.presentation.UiText.say;

import dibble.edits.NumberSeries;
import dibble.edits.TakeEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.presentation.Jobs;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.function.UnaryOperator;

/** The presenter of the Keys view: edits of the document, and the stacking of bands. */
public final class KeysPresenter {
    private final Document document;
    private final Jobs jobs;

    /** Presents a document. */
    public KeysPresenter(Document document, Jobs jobs) {
        this.jobs = jobs;
        this.document = document;
    }

    private Session session() {
        return document.session();
    }

    /** The zones of a source that hold now, in their order. */
    public List<Zone> zonesOf(String source) {
        return document.routing().zones().stream()
                .filter(zone -> zone.isPlayedBy(source))
                .toList();
    }

    /** For each zone of a source the level of its band, 0 lowest: bands that overlap lie over one another. */
    public Map<String, Integer> levels(String source) {
        Map<String, Integer> levels = new HashMap<>();
        List<Zone> placed = new ArrayList<>();
        List<Zone> zones = new ArrayList<>(zonesOf(source));
        // Keyswitches have a separate level above the others, with their names next to them.
        zones.sort(Comparator.comparing(Zone::keyswitch));
        for (Zone zone : zones) {
            int level = 0;
            while (isTaken(level, zone, placed, levels)) {
                level++;
            }
            levels.put(zone.id(), level);
            placed.add(zone);
        }
        return levels;
    }

    private static boolean isTaken(int level, Zone zone, List<Zone> placed, Map<String, Integer> levels) {
        return placed.stream()
                .anyMatch(other -> levels.get(other.id()) == level
                        && (zone.keyswitch() || other.keys().overlaps(zone.keys())));
    }

    /** The span of notes that the gear uses, in whole octaves, with a little air. */
    public Range span() {
        int low = 127;
        int high = 0;
        for (Source source : session().sources()) {
            low = Math.min(low, source.keys().low());
            high = Math.max(high, source.keys().high());
        }
        if (low > high) {
            return new Range(24, 108);
        }
        int from = Math.max(0, (low - 1) / 12 * 12);
        int to = Math.min(127, Math.max(from + 35, (high + 12) / 12 * 12));
        return new Range(from, to);
    }

    /** Keys moved by some semitones, held inside 0-127 with their width. */
    public static Range moved(Range keys, int semitones) {
        int by = Math.max(-keys.low(), Math.min(127 - keys.high(), semitones));
        return new Range(keys.low() + by, keys.high() + by);
    }

    /** Keys with one end moved by some semitones; an end never passes the other. */
    public static Range resized(Range keys, boolean lowEnd, int semitones) {
        return lowEnd
                ? new Range(Math.max(0, Math.min(keys.high(), keys.low() + semitones)), keys.high())
                : new Range(keys.low(), Math.min(127, Math.max(keys.low(), keys.high() + semitones)));
    }

    /** Returns the edit that sets the keys of a zone. */
    public Edit keysEdit(String zone, Range keys) {
        return zoneEdit(say("edit.keys"), zone, it -> it.withKeys(keys));
    }

    /** Mutes a source, or unmutes it. */
    public void setHeard(String source, boolean heard) {
        document.perform(performance -> performance.withHeard(source, heard));
    }

    /** Transposes a zone. */
    public void transpose(String zone, int semitones) {
        change(say("edit.transpose"), zone, it -> it.withTranspose(Math.max(-127, Math.min(127, semitones))));
    }

    /** Renames a zone. */
    public void rename(String zone, String name) {
        change(say("edit.rename"), zone, it -> it.withName(name));
    }

    /** Returns the edit that changes a zone. */
    public Edit zoneEdit(String what, String zone, UnaryOperator<Zone> change) {
        return new Edit(what, session -> ZoneEdits.changeZone(session, zone, change));
    }

    /** Changes a zone as one step of undo. */
    public void change(String what, String zone, UnaryOperator<Zone> change) {
        document.edit(zoneEdit(what, zone, change));
    }

    /** Changes several zones in one step. */
    public void changeAll(String what, Collection<String> zones, UnaryOperator<Zone> change) {
        document.edit(what, session -> ZoneEdits.changeZones(session, zones, change));
    }

    /** Returns the edit that sets the keys of several zones. */
    public static Edit keysOfAll(Collection<String> zones, UnaryOperator<Range> change) {
        return new Edit(
                say("edit.keys"),
                session -> ZoneEdits.changeZones(session, zones, it -> it.withKeys(change.apply(it.keys()))));
    }

    /** Deletes zones as one step of undo. */
    public void deleteAll(Collection<String> zones) {
        document.edit(say("edit.delete-zones"), session -> {
            Session changed = session;
            for (String zone : zones) {
                changed = ZoneEdits.deleteZone(changed, zone);
            }
            return changed;
        });
    }

    /** Moves a zone to one scene, or to all if the scene is null. */
    public void holdIn(String zone, String scene) {
        document.edit(say("edit.active-scene"), session -> ZoneEdits.moveZone(session, zone, scene));
    }

    /** Cuts a zone in two at a key; the id of the upper one, or null where the key is not inside it. */
    public String cut(String zone, int key) {
        Zone whole = session().zone(zone).orElse(null);
        if (whole == null || key <= whole.keys().low() || key > whole.keys().high()) {
            return null;
        }
        String id = ZoneEdits.freshZoneId(session(), whole.id());
        document.edit(say("edit.split"), session -> ZoneEdits.cutZone(session, zone, id, key));
        return id;
    }

    /**
     * A zone that was copied.
     *
     * @param scene the scene in which it is active; null for always
     */
    public record Copied(Zone zone, String scene) {}

    /** Copies a zone; the copy stays when the zone is deleted. */
    public Copied copied(Zone zone) {
        return new Copied(zone, session().sceneOf(zone.id()).map(Scene::id).orElse(null));
    }

    /** Returns whether the sound of a copied zone is there: it may have been copied in another session. */
    public boolean canPaste(Copied copied) {
        return part(copied.zone()).flatMap(session()::part).isPresent()
                || part(copied.zone()).isEmpty();
    }

    /** Adds a copied zone for a source, in its scene where that is still there. Returns the id of the new zone. */
    public String paste(Copied copied, String source) {
        Zone zone = copied.zone();
        String id = ZoneEdits.freshZoneId(session(), zone.id());
        String scene = session().scene(copied.scene()).map(Scene::id).orElse(null);
        document.edit(say("edit.paste-zone"), session -> ZoneEdits.copyZone(session, zone, id, source, scene));
        return id;
    }

    /** Makes the zones of a source adjacent: closes gaps and removes overlaps; layers stay. */
    public void closeGaps(String source) {
        List<Zone> zones = zonesOf(source).stream()
                .filter(zone ->
                        zone.enabled() && !zone.keyswitch() && zone.source().equals(source))
                .toList();
        document.edit(say("edit.close-gaps"), session -> ZoneEdits.closeGaps(session, zones));
    }

    /**
     * Assigns keys of a source, from one on, to the keyswitches of a part. Returns the id of the new zone, or null if
     * there are no keyswitches.
     */
    public String keyswitches(String source, PartRef part, int first) {
        if (session().part(part).filter(it -> !it.keyswitches().isEmpty()).isEmpty()) {
            return null;
        }
        String id = ZoneEdits.freshZoneId(session(), "switches");
        document.edit(say("edit.keyswitches"), session -> ZoneEdits.addKeyswitchZone(session, id, source, part, first));
        return id;
    }

    /** Numbers the selected zones in a series. */
    public void plant(NumberSeries plant) {
        document.edit(say("edit.plant"), plant::apply);
    }

    /** Gives each of some notes of a part a separate track with its recorded notes, and arms it. */
    public void tracksFor(PartRef part, List<Integer> notes) {
        jobs.edit(
                document,
                say("keys-presenter.splitting-track"),
                say("edit.one-track-per-note"),
                (session, progress) -> TakeEdits.splitKeys(session, part, notes, progress),
                () -> document.perform(now -> TakeEdits.armKeys(session(), now, part, notes)));
    }

    /** Keys of a source that two zones or more take which are no layer by velocity or channel, as stretches. */
    public List<Range> doubled(Source source) {
        List<Zone> zones = zonesOf(source.id()).stream()
                .filter(zone -> zone.enabled() && !zone.keyswitch())
                .toList();
        return stretches(source.keys(), key -> isDoubled(zones, key));
    }

    /** Two zones that lead to the same sound, for some velocity and channel. */
    private static boolean isDoubled(List<Zone> zones, int key) {
        List<Zone> here = zones.stream().filter(zone -> zone.keys().holds(key)).toList();
        for (int i = 0; i < here.size(); i++) {
            for (int j = i + 1; j < here.size(); j++) {
                Zone one = here.get(i);
                Zone other = here.get(j);
                if (one.to().equals(other.to())
                        && one.velocity().overlaps(other.velocity())
                        && one.channels().and(other.channels()).mask() != 0) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Deletes a zone. */
    public void delete(String zone) {
        document.edit(say("edit.delete-zone"), session -> ZoneEdits.deleteZone(session, zone));
    }

    /** Returns true if a new part on a source has to be asked about: the source plays something already. */
    public boolean needsAnswer(String source) {
        return !zonesOf(source).isEmpty();
    }

    /** Layers a part over all keys of a source. Returns the id of the new zone. */
    public String layer(String source, PartRef part) {
        String id = freshId(part);
        Range keys = session().source(source).orElseThrow().keys();
        document.edit(say("edit.layer"), session -> ZoneEdits.layerPart(session, id, source, part, keys));
        return id;
    }

    /** Splits a source at a key for a part, above or below it. Returns the id of the new zone. */
    public String beside(String source, PartRef part, int at, boolean below) {
        String id = freshId(part);
        Range keys = session().source(source).orElseThrow().keys();
        document.edit(say("edit.split"), session -> ZoneEdits.splitAt(session, id, source, part, keys, at, below));
        return id;
    }

    private String freshId(PartRef part) {
        return ZoneEdits.freshZoneId(
                session(), session().part(part).orElseThrow().name());
    }

    /** Returns true if a source can be split at this key: both sides keep at least one key. */
    public boolean canSplit(String source, int at) {
        Range keys = session().source(source).orElseThrow().keys();
        return at > keys.low() && at <= keys.high();
    }

    /** Returns the sounding range of a zone; empty if all of it is outside 0-127. */
    public Optional<Range> soundsAt(Zone zone) {
        int by = zone.transpose()
                + session().source(zone.source()).map(Source::transpose).orElse(0);
        int low = Math.max(0, zone.keys().low() + by);
        int high = Math.min(127, zone.keys().high() + by);
        return low <= high ? Optional.of(new Range(low, high)) : Optional.empty();
    }

    /** The transposition by which a zone's first key plays the first key that its part answers to. */
    public Optional<Integer> lineUp(Zone zone) {
        Optional<Source> source = session().source(zone.source());
        int first =
                Math.max(zone.keys().low(), source.map(it -> it.keys().low()).orElse(0));
        return session()
                .partOf(zone)
                .map(part -> part.keys().low()
                        - first
                        - source.map(Source::transpose).orElse(0));
    }

    /** The part that a zone leads to. */
    public static Optional<PartRef> part(Zone zone) {
        return zone.to() instanceof ZoneTarget.ToPart to ? Optional.of(to.part()) : Optional.empty();
    }

    /** Keys of a source that no zone takes, where it has zones at all; as stretches. */
    public List<Range> gaps(Source source) {
        List<Zone> zones = zonesOf(source.id()).stream().filter(Zone::enabled).toList();
        return zones.isEmpty()
                ? List.of()
                : stretches(
                        source.keys(),
                        key -> zones.stream().noneMatch(zone -> zone.keys().holds(key)));
    }

    /** The keys of a range for which something holds, as stretches. */
    private static List<Range> stretches(Range keys, IntPredicate holds) {
        List<Range> stretches = new ArrayList<>();
        int from = -1;
        for (int key = keys.low(); key <= keys.high() + 1; key++) {
            boolean now = key <= keys.high() && holds.test(key);
            if (now && from < 0) {
                from = key;
            } else if (!now && from >= 0) {
                stretches.add(new Range(from, key - 1));
                from = -1;
            }
        }
        return stretches;
    }
}
