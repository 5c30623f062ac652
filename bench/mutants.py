"""Hand-made mutants of the core: each is put in, the tests named beside it are run, and they must fail.

Run from anywhere: python3 bench/mutants.py [part of a name]. It works on a copy of the checkout in a temporary folder and leaves that of
the caller alone. Prints a line a mutant and the share that was killed; ends with 1 where less than nine in ten were.
"""

import pathlib
import re
import shutil
import subprocess
import sys
import tempfile

ROOT = pathlib.Path(__file__).resolve().parent.parent
CORE = "src/Core/"

# name, file, what stands there, what is put in its place, test classes that have to notice
MUTANTS = [
    ("pairs of causes left out", "Reasoning/Diagnosis.cs", "if (a.Cause != b.Cause)", "if (a.Cause != b.Cause && a.Cause.Key == b.Cause.Key)", "DiagnosisTests"),
    ("what is seen turned round", "Reasoning/Diagnosis.cs", "Math.Log(seen ? 1 - not : not)", "Math.Log(seen ? not : 1 - not)", "CauseTests"),
    ("an odd shot becomes the usual", "Reasoning/SignReader.cs", "? sorted[sorted.Count / 2]", "? sorted[^1]", "CauseTests DiagnosisTests"),
    ("advice that never fails", "Reasoning/AdviceCheck.cs", "still < StillThere", "still < 1", "CauseTests"),
    ("parts of a difference unweighed", "Reasoning/ShotDifference.cs", "Factorial(size) * Factorial(n - size - 1) / Factorial(n)", "1.0 / (1 << n) * Factorial(1) + (0 * size)", "DifferenceTests"),
    ("an arm that does not wait for drops", "Shots/RecordedArm.cs", "return seen.Seconds <= drops ? ByClock(seen.Seconds) : _waitBar;", "return ByClock(seen.Seconds + (0 * _waitBar));", "DifferenceTests CauseTests"),
    ("a puck's own ways forgotten", "Reasoning/PuckDraws.cs", "OwnWaysSd = 0.058", "OwnWaysSd = 0.0", "ReadBackTests"),
    ("channels under pressure", "Puck/PuckModel.cs", "EarlyStress = 0.06", "EarlyStress = 0.0", "PuckTests OrderingTests"),
    ("late channels", "Puck/PuckModel.cs", "LateStress = 0.004", "LateStress = 0.0", "PuckTests"),
    ("activation energy over 100", "Puck/Extraction.cs", "ActivationKelvin = 3000.0", "ActivationKelvin = 30.0", "ExtractionTests"),
    ("bar seconds without the step", "Traces/Measures.cs", "Math.Max(0.0, clean.PressureBar[i])) * clean.StepSeconds;\n                if", "Math.Max(0.0, clean.PressureBar[i]));\n                if", "TraceTests"),
    ("sign of the flow's slope", "Traces/Measures.cs", "[.. inside.Select(i => clean.FlowGramsPerS[i])]).Item2", "[.. inside.Select(i => -clean.FlowGramsPerS[i])]).Item2", "TraceTests"),
    ("an outlook without ageing", "Dialing/GrindOutlook.cs", "ageDays + (ages ? days : 0)", "ageDays", "GrindOutlookTests"),
    ("a coach without the hole", "Shots/ShotConditions.cs", "RestrictorBarS2PerMl2 = Bed.Basket.RestrictorBarS2PerMl2", "RestrictorBarS2PerMl2 = 0", "PuckWatchTests"),
    ("weight of the boiler's gauge", "Heat/ReadingAgainstRun.cs", "GaugeSigmaBar = 0.05", "GaugeSigmaBar = 50", "HeatFitTests"),
    ("a bloom in the puck's water", "Heat/HeatRun.cs", "Seconds > shot.AtSeconds + shot.BloomSeconds + 1e-9", "Seconds > shot.AtSeconds - 1", "HeatRunTests"),
    ("steam without water", "Heat/HeatedBoiler.cs", "state.Nodes.WaterGrams -= mass;", "state.Nodes.WaterGrams -= 0 * mass;", "HeatRunTests"),
    ("water hotter than it boils", "Heat/PuckWater.cs", "Math.Min(waterC, boilingC)", "Math.Max(waterC, 0 * boilingC)", "HeatRunTests"),
    ("a refill without end", "Heat/HeatedBoiler.cs", "Math.Min(grams, Math.Max(0, room - state.Nodes.WaterGrams))", "grams + (0 * room)", "HeatRunTests"),
    ("a plan by the middle of the band alone", "Heat/GroupBand.cs", "Normal.CDF(groupC, plusMinusK, HighC) - Normal.CDF(groupC, plusMinusK, LowC)", "1.0 - (0 * plusMinusK)", "PlannedShotsTests"),
    ("what does not land", "Dialing/SolveTheRest.cs", "return wanted.Holds(seconds) ? new(", "return wanted.Holds(wanted.Best) ? new(", "SolveTheRestTests"),
    ("a gap that counts as seen", "Traces/TraceGaps.cs", "after - before <= longest", "after - before <= 1000 * longest", "TraceEvidenceTests"),
    ("the hole's drop compacts the puck", "Puck/PuckModel.cs", "var compaction = FlowResistance.Compaction(_behaviour, drop);", "var compaction = FlowResistance.Compaction(_behaviour, pressureBar);", "PuckTests"),
    ("a sizzle turned round", "Heat/ReadingAgainstRun.cs", "Math.Max(0, boiling - run.GroupC), false", "Math.Max(0, run.GroupC - boiling), false", "HeatFitTests"),
    ("area of the bed not squared", "Shots/Bed.cs", "/ (area * area)", "/ area", "ShotConditionsTests"),
    ("the solids left out of the balance", "Shots/CupVolumes.cs", "- SolidsGrams(doseGrams, yieldGrams)", "", "CupVolumesTests ShotConditionsTests"),
    ("a spring cocked in no time", "Shots/PlanDrive.cs", "RefillSeconds = 2.0", "RefillSeconds = 0.0", "PullTests"),
    ("the hand's lag", "Shots/PlanDrive.cs", "LagSeconds = 0.3", "LagSeconds = 0.03", "PlanDriveTests PlanTests"),
    ("spout and scale taken for one", "Shots/CupPath.cs", "AtSpoutGrams + grams - falling, cup, ShownGrams", "AtSpoutGrams + grams - falling, cup, cup + 0 * ShownGrams", "CupPathTests"),
    ("the prior left out of a fit", "Shots/TraceFit.cs", "(weighted) + precision;", "(weighted) + (precision * 1e-6);", "TraceFitTests"),
    ("a slope of either sign", "Dialing/GrindAdvice.cs", "share / steps.Step * (steps.FinerIsLower ? -1 : 1)", "share / steps.Step * (steps.FinerIsLower ? 1 : -1)", "GrindAdviceTests"),
    ("an odd shot at full weight", "Dialing/GrindAdvice.cs", "(TailDegrees + 1) / (TailDegrees + (off * off / (NoiseShare * NoiseShare)))", "1.0 + (0 * off)", "GrindAdviceTests"),
    ("advice without a leash", "Dialing/GrindAdvice.cs", "LeastStepsBeyond, MostStepsBeyond)", "40, 60)", "GrindAdviceTests"),
    ("swelling", "Puck/PuckBehaviour.cs", "SwellFrom { get; init; } = 0.55", "SwellFrom { get; init; } = 0.95", "PuckTests"),
    ("viscosity", "Puck/FlowResistance.cs", "Viscosity.RelativeTo93C(waterC)", "1.0 + (0 * waterC)", "OrderingTests"),
    ("latent heat", "Water/Steam.cs", "=> 2256.5 - (2.72", "=> 1256.5 - (2.72", "GridTests HeatRunTests"),
    ("a hand that lets go at once", "Coaching/LetGo.cs", "pressed += bar * step;", "pressed += 0.5 * bar * step;", "TaughtTests"),
    ("the lever's ratio over its stroke", "Machines/PressureLimit.cs", "Math.Max(0, strokeMl) / machine.ChamberMl)", "0.5)", "ShotConditionsTests"),
]


def run(command, folder):
    return subprocess.run(command, cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, check=False)


def anywhere(code):
    """A pattern for code however its lines are broken."""
    return r"\s*".join(re.escape(part) for part in re.findall(r"\w+|[^\w\s]", code))


def main():
    wanted = [m for m in MUTANTS if len(sys.argv) < 2 or sys.argv[1] in m[0]]
    with tempfile.TemporaryDirectory() as folder:
        copy = pathlib.Path(folder) / "checkout"
        shutil.copytree(ROOT, copy, ignore=shutil.ignore_patterns("node_modules", ".git", "wwwroot", "web", "e2e", "docs"))
        tests = copy / "tests/Core.Tests"
        killed = 0
        for name, file, before, after, classes in wanted:
            path = copy / CORE / file
            text = path.read_text()
            found = re.search(anywhere(before), text)
            if found is None:
                print(f"NOT FOUND  {name}: {file} no longer says {before!r}")
                continue
            path.write_text(text[: found.start()] + after + text[found.end() :])
            built = run(["dotnet", "build", str(tests), "-c", "Release", "-v", "q", "-clp:NoSummary", "-p:TreatWarningsAsErrors=false"], copy)
            if built.returncode != 0:
                print(f"NOT BUILT  {name}: {[l for l in built.stdout.splitlines() if 'error' in l][:1]}")
            else:
                chosen = [part for c in classes.split() for part in ("-class", f"*.{c}")]
                result = run(["dotnet", "bin/Release/net10.0/RuddySpring.Core.Tests.dll", "-noColor", *chosen], tests)
                dead = result.returncode != 0
                killed += dead
                print(f"{'killed    ' if dead else 'LIVES     '} {name} ({classes})", flush=True)
            path.write_text(text)
        print(f"{killed} of {len(wanted)} killed")
        return 0 if killed >= 0.9 * len(wanted) else 1


if __name__ == "__main__":
    sys.exit(main())
