"""What python3-nmea2 reads of a recording, against what `weightaxis-cli nmea --json` says of it.

Usage: nmea_second_opinion.py RECORDING SUMMARY.json    Exit 0: they agree; 1: they do not, and in what.
"""
import json
import sys

import pynmea2

recording, summary = sys.argv[1], json.load(open(sys.argv[2]))
sentences = refused = 0
place = altitude = None
used, view, ratios = {}, {}, {}
ring = []
moment = None
for line in open(recording, encoding="latin-1"):
    line = line.strip()
    if "$" not in line:
        continue
    line = line[line.rindex("$"):]
    try:
        message = pynmea2.parse(line, check=False) if "*" not in line else pynmea2.parse(line)
    except pynmea2.ParseError:
        refused += 1
        continue
    sentences += 1
    kind = message.sentence_type
    if kind in ("RMC", "GGA"):  # rounds begin with RMC; where that one is spoilt, with another time
        time = message.data[0]
        if kind == "RMC" and time != moment or time and time != moment or (kind == "RMC" and not time):
            ring.append((dict(used), dict(view), dict(ratios)))
            used, view, ratios = {}, {}, {}
        moment = time
    if kind == "GGA" and message.gps_qual and int(message.gps_qual) > 0:
        place, altitude = (message.latitude, message.longitude), float(message.altitude)
    if kind == "GSA":
        system = message.data[17] if len(message.data) > 17 else "?"
        numbers = [n for n in message.data[2:14] if n]
        used.setdefault(system, set()).update(numbers)
    if kind == "GSV":
        fields = message.data[3:]
        for i in range(0, len(fields) - 3, 4):
            if fields[i]:
                view[(message.talker, fields[i])] = (fields[i + 1], fields[i + 2])
                if fields[i + 3]:
                    ratios[(message.talker, fields[i])] = float(fields[i + 3])
ring.append((used, view, ratios))
used, view, ratios = ring[-1]

faults = []


def agree(what, ours, theirs, within=0.0):
    both = ours is not None and theirs is not None
    if (ours is None) != (theirs is None) or (both and abs(ours - theirs) > within):
        faults.append(f"{what}: {ours} here, {theirs} by pynmea2")


agree("sentences", summary["sentences"], sentences)
agree("refused", summary["refused"], refused)
last = summary["last"]
agree("latitude", last["place_deg"] and last["place_deg"][0], place and place[0], 1e-9)
agree("longitude", last["place_deg"] and last["place_deg"][1], place and place[1], 1e-9)
agree("altitude", last["altitude_m"], altitude, 1e-9)
agree("used", last["used"], sum(len(v) for v in used.values()))
agree("in view", last["inView"], len(view))
best = sorted(ratios.values(), reverse=True)[:4]
agree("best four", last["best4_dBHz"], sum(best) / 4 if len(best) == 4 else None, 1e-9)
agree("most used", summary["mostUsed"], max(sum(len(v) for v in r[0].values()) for r in ring))
print("\n".join(faults) if faults else f"{sentences} sentences agree")
sys.exit(1 if faults else 0)
