using System.Reflection;
using System.Text.RegularExpressions;
using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnitV3;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace RuddySpring.Server.Tests;

/// <summary>The layout's rules: what may know what.</summary>
public sealed class ArchitectureTests
{
    private static readonly System.Reflection.Assembly Core = typeof(Core.Units).Assembly;
    private static readonly System.Reflection.Assembly Store = typeof(Store.RuddyContext).Assembly;
    private static readonly System.Reflection.Assembly Server = typeof(RuddySpring.Server.Hosting.RuddyServer).Assembly;
    private static readonly System.Reflection.Assembly Instruments = typeof(RuddySpring.Instruments.StandIn).Assembly;
    private static readonly Architecture All = new ArchLoader().LoadAssemblies(Core, Store, Server, Instruments).Build();

    private static IEnumerable<string> References(System.Reflection.Assembly assembly) =>
        assembly.GetReferencedAssemblies().Select(a => a.Name!);

    [Fact]
    public void Core_knows_nothing_but_the_runtime_and_a_numerical_library() =>
        Assert.All(References(Core), name =>
            Assert.Matches("^System\\.|^System$|^netstandard$|^mscorlib$|^MathNet\\.Numerics$", name)
        );

    [Fact]
    public void Store_does_not_know_the_server_nor_any_web() =>
        Assert.DoesNotContain(References(Store), n =>
            n.Contains("AspNetCore", StringComparison.Ordinal) || n == Server.GetName().Name
        );

    [Fact]
    public void Instruments_know_only_the_core() =>
        Assert.DoesNotContain(References(Instruments), n =>
            n.StartsWith("RuddySpring", StringComparison.Ordinal) && n != Core.GetName().Name
        );

    [Fact]
    public void Capabilities_do_not_know_the_composition_root() =>
        Types()
            .That()
            .ResideInNamespaceMatching(@"^RuddySpring\.Server\.(?!Hosting)")
            .Should()
            .NotDependOnAny(typeof(RuddySpring.Server.Hosting.RuddyServer))
            .Because("only the program puts the application together")
            .Check(All);

    [Fact]
    public void The_cores_parts_do_not_know_their_users()
    {
        Types()
            .That()
            .ResideInNamespace("RuddySpring.Core.Water")
            .Should()
            .NotDependOnAnyTypesThat()
            .ResideInNamespaceMatching(@"^RuddySpring\.Core\.(Machines|Puck|Pulls|Traces|Heat|Sessions|Beans)")
            .Check(All);
        Types()
            .That()
            .ResideInNamespace("RuddySpring.Core.Machines")
            .Should()
            .NotDependOnAnyTypesThat()
            .ResideInNamespaceMatching(@"^RuddySpring\.Core\.(Puck|Pulls|Traces|Heat|Sessions|Beans)")
            .Check(All);
    }

    [Fact]
    public void The_cores_folders_form_no_circle() =>
        ArchUnitNET
            .Fluent.Slices.SliceRuleDefinition.Slices()
            .Matching("RuddySpring.Core.(*)")
            .Should()
            .BeFreeOfCycles()
            .Check(All);

    // what is worked out about coffee is worked out in the core: outside of it there is rounding and clamping, and geometry on
    // the screen
    [Fact]
    public void Endpoints_and_pages_do_not_compute()
    {
        var root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "RuddySpring.slnx")))
            root = Path.GetDirectoryName(root)!;
        var files = Directory
            .EnumerateFiles(Path.Combine(root, "src", "Server"), "*.cs", SearchOption.AllDirectories)
            .Concat(Directory.EnumerateFiles(Path.Combine(root, "web", "src"), "*.ts*", SearchOption.AllDirectories))
            .Where(f => !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal))
            .ToArray();
        Assert.True(files.Length > 200);
        var function = new Regex(@"\bMath\.(Exp|Log|Pow|Sqrt|exp|log|pow|sqrt)\(");
        Assert.DoesNotContain(files, f => function.IsMatch(File.ReadAllText(f)));
    }

    [Fact] // units in the name: a bare "pressure" says nothing
    public void Public_numbers_of_the_core_carry_their_unit()
    {
        var bare = new Regex("^(Pressure|Weight|Temperature|Force|Dose|Yield|Flow|Volume|Time)$");
        var wrong = Core.GetExportedTypes()
            .SelectMany(t =>
                t.GetProperties(BindingFlags.Public | BindingFlags.Instance | BindingFlags.Static).Select(p => (t, p))
            )
            .Where(x => (x.p.PropertyType == typeof(double) || x.p.PropertyType == typeof(double?)) && bare.IsMatch(x.p.Name))
            .Select(x => $"{x.t.Name}.{x.p.Name}");
        Assert.Empty(wrong);
    }
}
