using RuddySpring.Core.Traces;
using RuddySpring.Server.Exchange;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>The pieces that reading a foreign file is made of.</summary>
public sealed class CsvTests
{
    [Theory]
    [InlineData("1.5", false, 1.5)]
    [InlineData("1,5", true, 1.5)]
    [InlineData("-3e2", false, -300.0)]
    [InlineData("1,5", false, null)]
    [InlineData("", false, null)]
    [InlineData("NaN", false, null)]
    [InlineData("1e999", false, null)]
    public void Numbers(string cell, bool comma, double? value) => Assert.Equal(value, CsvNumber.Parse(cell, comma));

    [Theory]
    [InlineData("0:07.3", false, 7.3)]
    [InlineData("1:02,5", true, 62.5)]
    [InlineData("1:00:01", false, 3601.0)]
    [InlineData("0:61", false, null)]
    [InlineData("7.3", false, null)]
    [InlineData("a:b", false, null)]
    public void Clock_times(string cell, bool comma, double? seconds) => Assert.Equal(seconds, CsvNumber.ParseClock(cell, comma));

    [Theory]
    [InlineData("Elapsed (s)", ColumnRole.Time, "s")]
    [InlineData("timestamp_ms", ColumnRole.Time, "ms")]
    [InlineData("Brew Pressure [PSI]", ColumnRole.Pressure, "psi")]
    [InlineData("pression (kPa)", ColumnRole.Pressure, "kPa")]
    [InlineData("Gewicht", ColumnRole.Weight, "g")]
    [InlineData("cup oz", ColumnRole.Weight, "oz")]
    [InlineData("group temp (\u00b0F)", ColumnRole.Group, "degF")]
    [InlineData("remark", ColumnRole.Ignore, "")]
    public void Column_names(string name, ColumnRole role, string unit)
    {
        var table = CsvTable.Read($"{name};other thing\n1;2\n2;3\n3;4\n");
        var column = ColumnGuess.Of(table)[0];
        Assert.Equal(role, column.Role);
        Assert.Equal(unit, column.Unit);
    }

    [Fact] // RFC 4180: separators, quotes and line ends inside quotes belong to the cell
    public void Quoted_cells()
    {
        var table = CsvTable.Read("time,\"note, long\",pressure\r\n0,\"a \"\"b\"\", c\",1\r\n1,\"two\r\nlines\",2\r\n");
        Assert.Equal("note, long", table.Names[1]);
        Assert.Equal("a \"b\", c", table.Cell(0, 1));
        Assert.Equal(2, table.Rows.Count);
    }

    [Fact]
    public void Short_rows_read_as_empty_cells()
    {
        var table = CsvTable.Read("t,pressure,weight\n0,1,0\n1,2\n2,3,1\n3,3,2\n4,3,3\n5,3,4\n");
        var reading = TraceCsvReader.Read(table, ColumnGuess.Of(table));
        Assert.Empty(reading.Errors);
        Assert.Equal(5, reading.Trace!.Of(Channel.Weight)!.Count);
    }

    [Fact]
    public void Columns_marked_twice_or_not_at_all_are_told()
    {
        var table = CsvTable.Read("t,a,b\n0,1,0\n1,2,1\n2,3,2\n");
        string Errors(params ImportColumn[] columns) => string.Join(" ", TraceCsvReader.Read(table, columns).Errors);
        Assert.Contains(
            "No column is marked as time",
            Errors(new ImportColumn(1, "a", ColumnRole.Pressure, "bar")),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "one of them is needed",
            Errors(new ImportColumn(0, "t", ColumnRole.Time, "s")),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "Two columns are marked as pressure",
            Errors(
                new(0, "t", ColumnRole.Time, "s"),
                new(1, "a", ColumnRole.Pressure, "bar"),
                new(2, "b", ColumnRole.Pressure, "bar")
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "There is no column 10",
            Errors(new(0, "t", ColumnRole.Time, "s"), new(9, "z", ColumnRole.Weight, "g")),
            StringComparison.Ordinal
        );
    }
}
