package dibble.session;

import dibble.gear.PartRef;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;

/**
 * The switches of a player, the channels in use, and the connections to other applications: saved with the session and
 * never undone. Only connections mark the session as changed.
 *
 * @param activeScene the id of the active scene, or null for the first
 * @param unheard the ids of muted sources
 * @param armed the ids of armed tracks
 * @param channels the present channels 1-16 of auto parts
 * @param connections the connections to other applications, present or not
 * @param setUp the checked items of the set-up list, by their ids
 */
@RecordBuilder
public record Performance(
        String activeScene,
        Set<String> unheard,
        Set<String> armed,
        Set<String> muted,
        Set<String> soloed,
        Map<PartRef, Integer> channels,
        Set<Connection> connections,
        Set<String> setUp)
        implements PerformanceBuilder.With {
    /** The performance of a new session: the first scene, nothing muted. */
    public static final Performance NEW =
            new Performance(null, Set.of(), Set.of(), Set.of(), Set.of(), Map.of(), Set.of(), Set.of());

    public Performance {
        unheard = Set.copyOf(unheard);
        armed = Set.copyOf(armed);
        muted = Set.copyOf(muted);
        soloed = Set.copyOf(soloed);
        channels = Map.copyOf(channels);
        connections = Collections.unmodifiableSet(new LinkedHashSet<>(connections));
        setUp = Collections.unmodifiableSet(new LinkedHashSet<>(setUp));
    }

    /** Returns true if a track is audible: not muted, and soloed if any is. */
    public boolean plays(String track) {
        return !muted.contains(track) && (soloed.isEmpty() || soloed.contains(track));
    }

    public Performance withScene(String id) {
        return withActiveScene(id);
    }

    public Performance withHeard(String source, boolean heard) {
        return withUnheard(changed(unheard, source, !heard));
    }

    public Performance withArmed(String track, boolean on) {
        return withArmed(changed(armed, track, on));
    }

    public Performance withMuted(String track, boolean on) {
        return withMuted(changed(muted, track, on));
    }

    public Performance withSoloed(String track, boolean on) {
        return withSoloed(changed(soloed, track, on));
    }

    /** Returns it with these cables to other programs. */
    public Performance connected(Collection<Connection> cables) {
        return withConnections(new LinkedHashSet<>(cables));
    }

    /** With some things of the set-up list ticked off, or not. */
    public Performance withSetUp(Collection<String> items, boolean done) {
        Set<String> changed = new LinkedHashSet<>(setUp);
        if (done) {
            changed.addAll(items);
        } else {
            changed.removeAll(items);
        }
        return withSetUp(changed);
    }

    /** Channels of parts that are gone are remembered, so that undo gives a part its channel back. */
    Performance rememberChannels(Map<PartRef, Integer> planned) {
        if (channels.entrySet().containsAll(planned.entrySet())) {
            return this;
        }
        Map<PartRef, Integer> all = new LinkedHashMap<>(channels);
        all.putAll(planned);
        return withChannels(all);
    }

    private static Set<String> changed(Set<String> set, String id, boolean in) {
        Set<String> changed = new LinkedHashSet<>(set);
        if (in) {
            changed.add(id);
        } else {
            changed.remove(id);
        }
        return changed;
    }
}
