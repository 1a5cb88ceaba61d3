package dibble.session;

import dibble.gear.Ids;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;

/** Ids that name one thing each, as they must while a session is edited. */
public final class DistinctIds {
    private DistinctIds() {}

    /**
     * Gives zones and control maps other ids where one is used in several scenes, as a file may have it: while a
     * session is edited, an id names one thing.
     */
    public static Session withDistinctIds(Session session) {
        Set<String> zones = new HashSet<>();
        Set<String> controls = new HashSet<>();
        Session first = session.withZones(distinct(session.zones(), Zone::id, Zone::withId, zones))
                .withControls(distinct(session.controls(), ControlMap::id, ControlMap::withId, controls));
        List<Scene> scenes = new ArrayList<>();
        for (Scene scene : session.scenes()) {
            scenes.add(scene.withZones(distinct(scene.zones(), Zone::id, Zone::withId, zones))
                    .withControls(distinct(scene.controls(), ControlMap::id, ControlMap::withId, controls)));
        }
        Session distinct = first.withScenes(scenes);
        return distinct.equals(session) ? session : distinct;
    }

    private static <T> List<T> distinct(
            List<T> items, Function<T, String> id, BiFunction<T, String, T> withId, Set<String> taken) {
        List<T> distinct = new ArrayList<>();
        for (T item : items) {
            String fresh = Ids.fresh(id.apply(item), taken::contains);
            taken.add(fresh);
            distinct.add(fresh.equals(id.apply(item)) ? item : withId.apply(item, fresh));
        }
        return distinct;
    }
}
