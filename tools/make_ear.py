"""Teach the ear that ships with the application: ``python tools/make_ear.py``.

Speech is made by espeak-ng in many voices, spoiled as recordings are, and its known sounds are learnt by
softmax regression with one hidden layer (Adam, Kingma and Ba 2015). Deterministic.
"""

from __future__ import annotations

import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

import numpy as np
from scipy.signal import butter, fftconvolve, sosfilt

from kitecore.document.poses import POSES
from kitecore.speech.ear import WEIGHTS, context_of, softened
from kitecore.speech.features import LOOKS, energies_of, features_of
from kitecore.speech.phonemes import lips_meet, posed_within
from kitecore.speech.reading import Reading, read

HIDDEN = 128
ROUNDS = 14
BATCH = 512
TEXTS = (
    "Every kite has a spine, a spar, a bridle and a tail, and every tail has a story.",
    "Please put the blue paper over the puddle before the wind picks up.",
    "Five foxes found a fuzzy feather floating over the valley.",
    "She sells seashells, he chooses cheese, and George judges jam.",
    "Mother and father bathe the other baby in the bath.",
    "Look, a little yellow lamp is lying along the lake.",
    "Who would choose to go through two cool pools in the moonlight?",
    "Weather is only paper that somebody folded, and then forgot to open.",
    "Maybe my mum makes more marmalade than most people imagine.",
    "Bob popped a big pumpkin pie up by the pub.",
    "They think this thing is worth a thousand other things.",
    "We see three green trees, he needs these sweet peas each week.",
    "A calm dark car park, half of it far from any heart.",
    "Oh no, don't go home alone, Joan, it's only snow.",
    "The vivid violet van never leaves the village before five.",
    "Quick brown clouds jump over the lazy harbour, while rain waits at the window.",
    "Hold the string tight, let it run, now pull, and it climbs.",
    "Good morning! How are you today? Fine, thank you, and you?",
    "Zebras doze as bees buzz, and roses rise in the breeze.",
    "Ten tiny dogs dug in the dirt; a cat got the cake, and ran.",
)
SYLLABLES = [
    "ba",
    "pa",
    "ma",
    "fo",
    "vu",
    "thi",
    "lo",
    "see",
    "sha",
    "choo",
    "ja",
    "da",
    "tee",
    "ko",
    "gu",
    "nay",
    "woo",
    "yo",
    "row",
    "hi",
    "ar",
    "ee",
    "oo",
    "aw",
]
VOICES = [
    f"{language}+{variant}"
    for variant in ("f1", "f2", "f4", "f5", "m1", "m2", "m4", "m5", "m6", "m7")
    for language in ("en", "en-us", "de", "es", "it")
]
EARS = np.random.default_rng(11)


TOUCH = len(POSES)
"""What is told apart besides the poses: lips that meet, which in a pause they only rest."""


def labels_of(reading: Reading, count: int) -> np.ndarray:
    """Index of the pose at each look, or `TOUCH`."""
    names, labels = list(POSES), np.zeros(count, np.int64)
    for said in reading.said:
        if lips_meet(said.sign):
            labels[round(said.begin * LOOKS) : round(said.end * LOOKS)] = TOUCH
            continue
        for pose, at, end in posed_within(said.sign, said.begin, said.end):
            labels[round(at * LOOKS) : round(end * LOOKS)] = names.index(pose)
    return labels


def spoiled(sound: np.ndarray, rate: int) -> np.ndarray:
    """As it would be recorded: coloured, in a room, with noise, at some level."""
    tilt = EARS.uniform(-0.5, 0.9)
    sound = np.append(sound[:1], sound[1:] - tilt * sound[:-1])
    if EARS.random() < 0.4:
        decay = np.exp(-np.arange(int(0.12 * rate)) / (EARS.uniform(0.01, 0.05) * rate))
        room = EARS.normal(0, 0.08, len(decay)) * decay
        room[0] = 1
        sound = fftconvolve(sound, room)[: len(sound)]
    if EARS.random() < 0.3:
        band = butter(
            2, (EARS.uniform(60, 250), EARS.uniform(4500, 9000)), "band", fs=rate, output="sos"
        )
        sound = sosfilt(band, sound)
    noise = EARS.normal(0, 1, len(sound))
    if EARS.random() < 0.6:
        noise = sosfilt(butter(1, 800, fs=rate, output="sos"), noise)
    level = np.sqrt(np.mean(np.square(sound))) + 1e-9
    noise *= level / np.std(noise) * 10 ** (-EARS.uniform(12, 55) / 20)
    return ((sound + noise) * 10 ** (EARS.uniform(-20, 0) / 20)).astype(np.float32)


def lessons() -> tuple[np.ndarray, np.ndarray]:
    found, known = [], []
    for number, voice in enumerate(VOICES):
        chosen = EARS.choice(len(TEXTS), 7, replace=False)
        nonsense = " ".join("".join(EARS.choice(SYLLABLES, 2)) for _ in range(25))
        reading = read(" ".join([*(TEXTS[one] for one in chosen), nonsense]), voice)
        for _ in range(2):
            features = features_of(energies_of(spoiled(reading.sound, reading.rate), reading.rate))
            found.append(context_of(features).astype(np.float16))
            known.append(labels_of(reading, len(features)))
        print(f"\r{number + 1} of {len(VOICES)} voices", end="", flush=True)
    return np.concatenate(found), np.concatenate(known)


def taught(seen: np.ndarray, known: np.ndarray) -> dict[str, np.ndarray]:
    """Weights, by Adam with a pace that falls to nothing."""
    wide, many = seen.shape[1], TOUCH + 1
    weights = {
        "w1": EARS.normal(0, np.sqrt(2 / wide), (wide, HIDDEN)),
        "b1": np.zeros(HIDDEN),
        "w2": EARS.normal(0, np.sqrt(1 / HIDDEN), (HIDDEN, many)),
        "b2": np.zeros(many),
    }
    weights = {name: value.astype(np.float32) for name, value in weights.items()}
    first = {name: np.zeros_like(value) for name, value in weights.items()}
    second = {name: np.zeros_like(value) for name, value in weights.items()}
    steps, step = ROUNDS * (len(seen) // BATCH), 0
    for turn in range(ROUNDS):
        order, lost = EARS.permutation(len(seen)), 0.0
        for begin in range(0, len(order) - BATCH + 1, BATCH):
            rows = np.sort(order[begin : begin + BATCH])
            step += 1
            loss, slopes = slopes_of(weights, seen[rows].astype(np.float32), known[rows])
            lost += loss
            pace = 2e-3 * (1 - step / steps)
            for name, slope in slopes.items():
                slope = slope + 1e-4 * weights[name]
                first[name] = 0.9 * first[name] + 0.1 * slope
                second[name] = 0.999 * second[name] + 0.001 * slope * slope
                a, b = first[name] / (1 - 0.9**step), second[name] / (1 - 0.999**step)
                weights[name] -= pace * a / (np.sqrt(b) + 1e-8)
        print(f"round {turn + 1}: {lost / (len(order) // BATCH):.3f}", flush=True)
    return weights


def slopes_of(
    weights: dict[str, np.ndarray], seen: np.ndarray, known: np.ndarray
) -> tuple[float, dict[str, np.ndarray]]:
    dropped = EARS.random((len(seen), HIDDEN)) < 0.15
    hidden = np.maximum(seen @ weights["w1"] + weights["b1"], 0)
    hidden[dropped] = 0
    shares = softened(hidden @ weights["w2"] + weights["b2"])
    rows = np.arange(len(known))
    loss = float(-np.log(shares[rows, known] + 1e-9).mean())
    error = shares.copy()
    error[rows, known] -= 1
    error /= len(known)
    back = error @ weights["w2"].T
    back[hidden <= 0] = 0
    return loss, {
        "w1": seen.T @ back,
        "b1": back.sum(0),
        "w2": hidden.T @ error,
        "b2": error.sum(0),
    }


if __name__ == "__main__":
    kept = taught(*lessons())
    np.savez_compressed(WEIGHTS, **{name: value.astype(np.float16) for name, value in kept.items()})
    print(f"{WEIGHTS.name}: {WEIGHTS.stat().st_size} bytes")
