using System.Text;
using RuddySpring.Server.Exchange.Households;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>A file of a household is read piece by piece. The memory of the whole process is what is measured, so no
/// other test may run at the same time.</summary>
[Collection(nameof(SectionReaderTests))]
[CollectionDefinition(nameof(SectionReaderTests), DisableParallelization = true)]
public sealed class SectionReaderTests
{
    [Fact]
    public async Task A_hundred_megabytes_are_read_in_little_memory()
    {
        var shot = $"{{\"id\":1,\"note\":\"{new string('x', 4000)}\"}}";
        await using var file = new FileStream(
            Path.GetTempFileName(),
            FileMode.Create,
            FileAccess.ReadWrite,
            FileShare.None,
            4096,
            FileOptions.DeleteOnClose
        );
        await file.WriteAsync("{\"format\":\"x\",\"shots\":["u8.ToArray());
        var entry = Encoding.UTF8.GetBytes(shot);
        for (var i = 0; i < 26_000; i++)
        {
            await file.WriteAsync(i > 0 ? ",\n"u8.ToArray() : []);
            await file.WriteAsync(entry);
        }

        await file.WriteAsync("]}"u8.ToArray());
        Assert.True(file.Length > 100_000_000);
        file.Position = 0;
        var before = GC.GetTotalMemory(forceFullCollection: true);
        var pieces = 0;
        var most = 0L;
        await foreach (var _ in new SectionReader(file).ReadAsync(CancellationToken.None))
        {
            if (++pieces % 5000 == 0)
                most = Math.Max(most, GC.GetTotalMemory(forceFullCollection: true) - before);
        }

        Assert.Equal(26_001, pieces);
        Assert.InRange(most, long.MinValue, 4_000_000);
    }
}
