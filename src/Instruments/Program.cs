using System.Runtime.InteropServices;
using RuddySpring.Instruments;

// Stand-in instruments: --server ws://127.0.0.1:5180/instruments --seed 7 --speed 1 --gauge-rate 20 --group-probe yes
// --clock-speed 1 --lets-go cue
string Option(string name, string otherwise)
{
    var at = Array.IndexOf(args, name);
    return at >= 0 && at + 1 < args.Length ? args[at + 1] : otherwise;
}

using var cancel = new CancellationTokenSource();
using var interrupt = PosixSignalRegistration.Create(PosixSignal.SIGINT, Stop);
using var terminate = PosixSignalRegistration.Create(PosixSignal.SIGTERM, Stop);

var standIn = new StandIn(
    new Uri(Option("--server", "ws://127.0.0.1:5180/instruments")),
    ulong.Parse(Option("--seed", "7")),
    double.Parse(Option("--speed", "1")),
    int.Parse(Option("--gauge-rate", "20")),
    Option("--group-probe", "yes") == "yes",
    double.Parse(Option("--clock-speed", "1")),
    Option("--lets-go", "cue") == "cue"
);
await standIn.RunAsync(cancel.Token);
return 0;

void Stop(PosixSignalContext context)
{
    context.Cancel = true;
    cancel.Cancel();
}
