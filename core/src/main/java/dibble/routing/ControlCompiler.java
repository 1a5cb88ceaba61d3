package dibble.routing;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.routing.RoutingTable.SceneSet;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Compiles the control maps of all scenes into columns. Equal parts of all scenes are compiled once. */
final class ControlCompiler {
    private final Routing routing;
    private final SlotAllocator slots;
    private final Map<ControlMap, ControlMap> nameless = new IdentityHashMap<>();
    private final List<PartRef> allParts = new ArrayList<>();
    private final Set<String> sources = new HashSet<>();

    ControlCompiler(Routing routing, SlotAllocator slots) {
        this.routing = routing;
        this.slots = slots;
        Set<Destination> seen = new HashSet<>();
        for (Instrument instrument : routing.instruments()) {
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                if (routing.destination(ref).filter(seen::add).isPresent()) {
                    allParts.add(ref);
                }
            }
        }
        routing.sources().forEach(source -> sources.add(source.id()));
    }

    private boolean holds(ControlMap map) {
        return map.enabled() && (map.source().equals(Zone.ANY_SOURCE) || sources.contains(map.source()));
    }

    ControlColumns columns(Routing inScene, SceneSet scenes) {
        List<ControlMap> maps = inScene.controlMaps();
        int sends = 0;
        int aims = 0;
        for (int m = 0; m < maps.size(); m++) {
            for (int i = 0; i < maps.get(m).sends().size(); i++) {
                slots.send(name(inScene, maps.get(m), m, i));
                sends++;
                aims += aims(maps.get(m).sends().get(i));
            }
        }
        ControlColumns columns = new ControlColumns(maps.size(), sends, aims, slots.sendCount());
        int s = 0;
        int aim = 0;
        for (int m = 0; m < maps.size(); m++) {
            ControlMap map = maps.get(m);
            columns.map[m] = nameless.computeIfAbsent(map, ControlMap::nameless);
            columns.parameter[m] =
                    ControlColumns.parameter(map.when().kind(), map.when().number());
            columns.firstSend[m] = s;
            for (int i = 0; i < map.sends().size(); i++) {
                ControlMap.Send send = map.sends().get(i);
                columns.send[s] = send;
                columns.sendMap[s] = m;
                columns.slot[s] = slots.send(name(inScene, maps.get(m), m, i));
                columns.scene[s] = scene(send, inScene, scenes);
                columns.firstAim[s] = aim;
                aim = fillAims(columns, send, aim);
                if (holds(map)) {
                    columns.sendOfSlot[columns.slot[s]] = s;
                }
                s++;
            }
        }
        columns.firstSend[maps.size()] = s;
        columns.firstAim[s] = aim;
        return columns;
    }

    private String name(Routing inScene, ControlMap map, int m, int i) {
        int always = routing.controls().size();
        return (m < always ? "" : inScene.activeScene()) + "/" + map.id() + "#" + i;
    }

    private static int scene(ControlMap.Send send, Routing inScene, SceneSet scenes) {
        if (!(send.to() instanceof SendTarget.ToScene to)) {
            return ControlColumns.NO_SCENE;
        }
        if (to.scene().equals(SendTarget.ToScene.NEXT)) {
            return ControlColumns.NEXT_SCENE;
        }
        if (to.scene().equals(SendTarget.ToScene.PREVIOUS)) {
            return ControlColumns.PREVIOUS_SCENE;
        }
        for (int place = 0; place < inScene.scenes().size(); place++) {
            if (inScene.scenes().get(place).id().equals(to.scene())) {
                return place;
            }
        }
        return ControlColumns.NO_SCENE;
    }

    /** Returns the number of targets of a send. */
    private int aims(ControlMap.Send send) {
        boolean reconfigures = send.kind() == ControlKind.CONTROLLER && RoutingTable.reconfigures(send.number());
        if (reconfigures || send.to() instanceof SendTarget.ToScene) {
            return 0;
        }
        if (send.to() instanceof SendTarget.AllParts) {
            return allParts.size();
        }
        return slots.destination((ZoneTarget) send.to(), routing) == RoutingTable.NOWHERE ? 0 : 1;
    }

    private int fillAims(ControlColumns columns, ControlMap.Send send, int first) {
        int aim = first;
        int count = aims(send);
        for (int i = 0; i < count; i++) {
            ZoneTarget to = send.to() instanceof ZoneTarget target ? target : new ZoneTarget.ToPart(allParts.get(i));
            columns.destination[aim] = slots.destination(to, routing);
            columns.instrument[aim] = slots.instrument(to.instrument());
            columns.rest[aim] = rest(send, to);
            aim++;
        }
        return aim;
    }

    private int rest(ControlMap.Send send, ZoneTarget to) {
        if (send.kind() != ControlKind.CONTROLLER) {
            return ControlColumns.NOTHING;
        }
        if (send.rest() != null) {
            return send.rest();
        }
        if (send.number() == 11) {
            return 127;
        }
        Integer own = null;
        if (to instanceof ZoneTarget.ToPart part) {
            Sound sound = routing.part(part.part()).map(Part::sound).orElseThrow();
            own = send.number() == 7 ? sound.volume() : send.number() == 10 ? sound.pan() : null;
        }
        return own == null ? ControlColumns.NOTHING : own;
    }
}
