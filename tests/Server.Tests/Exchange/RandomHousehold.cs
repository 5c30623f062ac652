using CsCheck;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Exchange.Households;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>Households of all kinds, with the texts that break files.</summary>
internal static class RandomHousehold
{
    private static readonly DateTime Newest = new(2026, 6, 1, 0, 0, 0, DateTimeKind.Utc);

    private static Gen<T> OneOf<T>(params T[] some) => Gen.Int[0, some.Length - 1].Select(i => some[i]);

    /// <summary>A text of one line.</summary>
    public static readonly Gen<string> Line = Gen.OneOf(
        OneOf(
            "Saddle Wind",
            "=1+1",
            "@SUM(A1)",
            "-3",
            "+49",
            "'quoted'",
            "\"so\" it said",
            "semi;colon, comma",
            "Kaffee für Übermütige",
            "\U0001F98C",
            "NaN",
            "null",
            "0"
        ),
        Gen.Char.AlphaNumeric.Array[1, 20].Select(c => new string(c))
    );

    private static readonly Gen<string> Lines = Gen.OneOf(Line, Gen.Const(""), Gen.Select(Line, Line, (a, b) => $"{a}\n{b}"));

    private static readonly Gen<DateTime> Moment = Gen.Long[0, 400_000_000].Select(ms => Newest.AddMilliseconds(-ms * 100));

    private static readonly Gen<DateOnly> Day = Gen.Int[0, 700].Select(d => DateOnly.FromDateTime(Newest).AddDays(-d));

    private static readonly Gen<FiledHousehold> Household = Gen.Select(
        Line,
        Gen.Int[-400, 6000],
        OneOf("bar", "psi", "kPa"),
        OneOf("degC", "degF"),
        OneOf("kgf", "N"),
        OneOf([.. SchoolList.All.Select(s => s.Key)]),
        (name, height, pressure, degrees, force, school) =>
            new FiledHousehold(
                name,
                height,
                21.5,
                pressure,
                degrees,
                force,
                school,
                ["nuts", "ash"],
                RestWindow.Of(RestSchool.SevenToTen)
            )
    );

    private static readonly Gen<Series> SeriesOf = Gen.Select(
        Gen.Enum<Channel>(),
        Gen.Enum<Origin>(),
        Gen.Int[0, 900].Array[0, 60],
        Gen.Int[0, 12_000],
        (channel, origin, steps, value) =>
        {
            var at = 0;
            var seconds = steps.Select(s => (at += s) / 1000.0).ToList();
            return new Series(
                channel,
                origin,
                seconds,
                [.. seconds.Select((_, i) => ((value + (i * 37)) % 12_000 / 10) / 100.0)]
            );
        }
    );

    private static readonly Gen<FiledSeries[]> Trace = SeriesOf
        .Array[0, 3]
        .Select(some =>
            some.DistinctBy(s => s.Channel)
                .Select(s => new FiledSeries(s.Channel, s.Origin, [.. s.Seconds], [.. s.Values]))
                .ToArray()
        );

    private static Gen<int?> Maybe(int count) => Gen.Int[0, count].Select(i => i == 0 ? (int?)null : i);

    private static readonly Gen<int?> Mark = Gen.Int[-1, 4].Select(i => i < 0 ? (int?)null : i);

    private static Gen<FiledShot> Shot(int brewers, int machines, int bags, int grinders, int baskets) =>
        from at in Moment
        from machine in Gen.Int[1, machines]
        from dose in Gen.Int[60, 240]
        from trace in Trace
        from clock in Gen.Enum<ClockStart>()
        from source in Gen.Enum<ShotSource>()
        from brewer in Maybe(brewers)
        from bag in Maybe(bags)
        from grinder in Maybe(grinders)
        from basket in Maybe(baskets)
        from taste in Mark.Array[5]
        from liking in Gen.Int[0, 5]
        from words in Lines
        from seen in Lines
        from binned in Gen.Bool
        from plan in OneOf([.. ShippedPlans.All])
        from cup in Gen.Int[10, 60]
        select new FiledShot(
            0,
            at,
            source,
            machine,
            dose / 10.0,
            30,
            plan,
            Moments.None,
            new(null, 30, null, 8.25, cup, cup / (dose / 10.0), 8, 6.5, 1.2, null, null, null, null),
            trace,
            clock,
            null,
            brewer,
            bag,
            grinder,
            grinder is null ? null : 12.5,
            basket,
            new Preparation(Stirred: true, TampKgf: 12),
            91.5,
            null,
            seen.Trim(),
            null,
            taste[0],
            taste[1],
            taste[2],
            taste[3],
            taste[4],
            liking == 0 ? null : liking,
            words.Trim(),
            null,
            null,
            0.095,
            null,
            "",
            null,
            binned ? at.AddMinutes(3) : null
        );

    /// <summary>A household whose numbers run from 1 in each list, as a bench that was filled with it has them.</summary>
    public static readonly Gen<HouseholdFile> Any =
        from household in Household
        from brewers in Gen.Select(Line, Gen.Bool, (name, own) => new FiledBrewer(0, name, own ? "flow-led" : null)).Array[0, 3]
        from machines in Gen.Select(Line, Gen.Enum<MachineFamily>(), Gen.Bool, (name, family, away) =>
            new FiledMachine(0, name, FamilyDefaults.Of(family).Machine, away ? Newest : null)
        ).Array[1, 3]
        from grinders in Gen.Select(Line, Gen.Bool, (name, finer) =>
            new FiledGrinder(0, name, "clicks", 0.5, finer, 1.5, 0.3, 2)
        ).Array[0, 2]
        from baskets in Gen.Select(Line, name => new FiledBasket(
            0,
            name,
            Basket.Of(FamilyDefaults.Of(MachineFamily.PortableLever).Machine)
        )).Array[0, 2]
        from bags in Gen.Select(Line, Line, Day, Gen.Bool, (name, roaster, roasted, over) =>
            new FiledBag(0, name, roaster, roasted, "medium", over, "washed", roasted.AddDays(9), null, null, over ? 0 : 118.5)
        ).Array[0, 4]
        from plans in Gen.Select(Line, name => new FiledPlan(
            0,
            ShippedPlans.EarlyPeak with
            {
                Key = "own-1",
                Name = name,
            }
        )).Array[0, 1]
        from shots in Shot(brewers.Length, machines.Length, bags.Length, grinders.Length, baskets.Length).Array[0, 12]
        from views in Gen.Select(Line, name => new FiledView(name, "liked=4")).Array[0, 2]
        select new HouseholdFile(
            HouseholdFile.FormatName,
            HouseholdFile.CurrentVersion,
            Newest,
            household,
            Numbered(brewers.DistinctBy(b => b.Name), (b, i) => b with { Id = i }),
            Numbered(machines, (m, i) => m with { Id = i }),
            Numbered(grinders, (g, i) => g with { Id = i }),
            Numbered(baskets, (b, i) => b with { Id = i }),
            Numbered(bags, (b, i) => b with { Id = i }),
            Numbered(plans, (p, i) => p with { Id = i }),
            Numbered(
                shots
                    .Select(s => s.BrewerId > brewers.DistinctBy(b => b.Name).Count() ? s with { BrewerId = null } : s)
                    .DistinctBy(s => (s.PulledAt, s.MachineId)),
                (s, i) => s with { Id = i }
            ),
            [],
            [.. shots.Length > 0 ? new[] { new FiledAdvice(1, Newest, new("dose-off", new("Weigh the dose", "", ""))) } : []],
            [],
            [],
            [new FiledLadder(Newest, new(LadderOf.Temperature, [85, 90, 95], [2, 0, 1]), [0, 1, 2], [3, null, 5])],
            [.. views.DistinctBy(v => v.Name)],
            [new FiledCareDone(1, CareList.Seal, DateOnly.FromDateTime(Newest), "42 mm")],
            [
                new FiledCareChoice(1, CareList.Rinse, new CareInterval(Shots: 7)),
                new FiledCareChoice(1, CareList.Seal, null, true),
            ]
        );

    private static List<T> Numbered<T>(IEnumerable<T> some, Func<T, int, T> numbered) =>
        [.. some.Select((s, i) => numbered(s, i + 1))];
}
