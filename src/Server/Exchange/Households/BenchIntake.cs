using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Water;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>Takes in what stands on the bench: household, brewers, machines, grinders, baskets, bags and plans. What has the
/// name of something that is here is taken for it.</summary>
internal sealed class BenchIntake(IntakeDesk desk, bool withSettings)
{
    public async Task HouseholdAsync(FiledHousehold filed, CancellationToken cancel)
    {
        Texts.Required(filed.Name, "name", "Name");
        Atmosphere.Altitude.Check(filed.AltitudeMetres);
        HeatRanges.Ambient.Check(filed.AmbientC);
        DisplayUnits.Check(filed.PressureUnit, filed.TemperatureUnit, filed.ForceUnit);
        var school = HouseholdEndpoints.KnownSchool(filed.School);
        var words = TasteWords.Checked(filed.TasteWords);
        var rest = filed.Rest.Checked();
        Descaling.Hardness.Check(filed.WaterHardness);
        if (!desk.IsStored || !withSettings)
            return;
        var row = await desk.Db.Households.SingleAsync(cancel);
        row.Name = filed.Name;
        row.AltitudeMetres = filed.AltitudeMetres;
        row.AmbientC = filed.AmbientC;
        row.PressureUnit = filed.PressureUnit;
        row.TemperatureUnit = filed.TemperatureUnit;
        row.ForceUnit = filed.ForceUnit;
        row.School = school!;
        row.TasteWords = words;
        row.Rest = rest;
        row.WaterHardness = filed.WaterHardness;
        await desk.Db.SaveChangesAsync(cancel);
    }

    public async Task BrewerAsync(FiledBrewer filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        DisplayUnits.Check(filed.PressureUnit, filed.TemperatureUnit, filed.ForceUnit);
        var row = new Brewer
        {
            Name = name,
            School = HouseholdEndpoints.KnownSchool(filed.School),
            PressureUnit = filed.PressureUnit,
            TemperatureUnit = filed.TemperatureUnit,
            ForceUnit = filed.ForceUnit,
        };
        await desk.ThingAsync(
            filed.Id,
            row,
            desk.Db.Brewers.Where(b => b.Name == name).Select(b => (int?)b.Id),
            r => r.Id,
            cancel
        );
    }

    public async Task MachineAsync(FiledMachine filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        var row = new BenchMachine
        {
            Name = name,
            Spec = filed.Spec.Checked(),
            DeletedAt = desk.Moment(filed.PutAwayAt),
        };
        await desk.ThingAsync(filed.Id, row, IntakeDesk.Same(desk.Db.Machines, name, row.DeletedAt), r => r.Id, cancel);
    }

    public async Task GrinderAsync(FiledGrinder filed, CancellationToken cancel)
    {
        var row = new Grinder { DeletedAt = desk.Moment(filed.PutAwayAt) };
        Bench.BenchEndpoints.Apply(
            row,
            new(
                filed.Name,
                filed.ScaleUnit,
                filed.Step,
                filed.FinerIsLower,
                filed.ZeroPoint,
                filed.RetentionGrams,
                filed.PurgeGrams
            )
        );
        await desk.ThingAsync(filed.Id, row, IntakeDesk.Same(desk.Db.Grinders, row.Name, row.DeletedAt), r => r.Id, cancel);
    }

    public async Task BasketAsync(FiledBasket filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        var row = new BenchBasket
        {
            Name = name,
            Spec = filed.Spec.Checked(),
            DeletedAt = desk.Moment(filed.PutAwayAt),
        };
        await desk.ThingAsync(filed.Id, row, IntakeDesk.Same(desk.Db.Baskets, name, row.DeletedAt), r => r.Id, cancel);
    }

    public async Task BagAsync(FiledBag filed, CancellationToken cancel)
    {
        var row = new Bag
        {
            Name = Texts.Required(filed.Name, "name", "Name"),
            Roaster = Texts.Optional(filed.Roaster, "roaster", "Roaster"),
            RoastedOn = desk.Day(filed.RoastedOn, "roastedOn")!.Value,
            RoastLevel = Texts.Optional(filed.RoastLevel, "roastLevel", "Roast"),
            Finished = filed.Finished,
            Process = Texts.Optional(filed.Process, "process", "Process"),
            OpenedOn = desk.Day(filed.OpenedOn, "openedOn"),
            FrozenOn = desk.Day(filed.FrozenOn, "frozenOn"),
            ThawedOn = desk.Day(filed.ThawedOn, "thawedOn"),
            GramsLeft = filed.GramsLeft is { } left ? Bench.BenchEndpoints.Left.Check(left) : null,
            BrewerId = desk.Refer("brewers", filed.BrewerId, "brewerId"),
            DeletedAt = desk.Moment(filed.PutAwayAt),
        };
        var same = desk
            .Db.Bags.Where(b =>
                b.Name == row.Name
                && b.Roaster == row.Roaster
                && b.RoastedOn == row.RoastedOn
                && b.DeletedAt == null == (row.DeletedAt == null)
            )
            .Select(b => (int?)b.Id);
        await desk.ThingAsync(filed.Id, row, same, r => r.Id, cancel);
    }

    public async Task PlanAsync(FiledPlan filed, CancellationToken cancel)
    {
        var row = new OwnPlan { Plan = filed.Plan.Checked(), DeletedAt = desk.Moment(filed.PutAwayAt) };
        int? here = null;
        foreach (var plan in await desk.Db.Plans.AsNoTracking().ToListAsync(cancel))
        {
            if (plan.Plan.Name == row.Plan.Name && plan.DeletedAt is null == row.DeletedAt is null)
                here ??= plan.Id;
        }

        await desk.ThingAsync(filed.Id, row, here, r => r.Id, cancel);
    }
}
