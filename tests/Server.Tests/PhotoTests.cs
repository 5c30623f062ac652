using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using SkiaSharp;

namespace RuddySpring.Server.Tests;

/// <summary>Photos of cup and puck: read, turned upright, and stripped of what the camera wrote.</summary>
public sealed class PhotoTests(LiveServer server) : IClassFixture<LiveServer>
{
    /// <summary>A picture that is red at the left and blue at the right.</summary>
    private static byte[] Picture(int width, int height, SKEncodedImageFormat format = SKEncodedImageFormat.Jpeg)
    {
        using var bitmap = new SKBitmap(width, height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.Red);
        using var blue = new SKPaint { Color = SKColors.Blue };
        canvas.DrawRect(width / 2f, 0, width / 2f, height, blue);
        canvas.Flush();
        using var data = bitmap.Encode(format, 95);
        return data.ToArray();
    }

    /// <summary>The same with an Exif block (Exif 2.3, APP1 of JPEG): orientation, and a place that must not stay.</summary>
    private static byte[] WithExif(byte[] jpeg, byte orientation)
    {
        byte[] exif =
        [
            .. "Exif\0\0"u8,
            .. "MM\0*\0\0\0\b"u8,
            0,
            2, // two entries
            0x01,
            0x12,
            0,
            3,
            0,
            0,
            0,
            1,
            0,
            orientation,
            0,
            0,
            0x01,
            0x0E,
            0,
            2,
            0,
            0,
            0,
            20,
            0,
            0,
            0,
            38,
            0,
            0,
            0,
            0,
            .. "47.1234N 11.5678E!!\0"u8,
        ];
        var length = exif.Length + 2;
        return [0xFF, 0xD8, 0xFF, 0xE1, (byte)(length >> 8), (byte)length, .. exif, .. jpeg[2..]];
    }

    private async Task<(HttpStatusCode Status, JsonNode? Body)> AddAsync(int shot, byte[] picture, string type = "image/jpeg")
    {
        using var content = new ByteArrayContent(picture);
        content.Headers.ContentType = new MediaTypeHeaderValue(type);
        using var answer = await server.Http.PostAsync($"/api/shots/{shot}/photos", content);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync()));
    }

    private async Task<SKBitmap> ShownAsync(JsonNode? photos, string end = ".jpg")
    {
        var id = (int)photos!.AsArray().Last()!["id"]!;
        return SKBitmap.Decode(await server.Http.GetByteArrayAsync($"/api/photos/{id}{end}"));
    }

    [Theory]
    [InlineData(1, 80, 40, true)]
    [InlineData(3, 80, 40, false)]
    [InlineData(2, 80, 40, false)]
    public async Task A_photo_stands_upright_and_says_nothing_of_where_it_was_taken(
        byte held,
        int width,
        int height,
        bool redLeft
    )
    {
        var (status, photos) = await AddAsync(10 + held, WithExif(Picture(80, 40), held));
        Assert.Equal(HttpStatusCode.OK, status);
        using var shown = await ShownAsync(photos);
        Assert.Equal((width, height), (shown.Width, shown.Height));
        Assert.Equal(redLeft, shown.GetPixel(5, height / 2).Red > 128);
        var id = (int)photos!.AsArray().Last()!["id"]!;
        var bytes = await server.Http.GetByteArrayAsync($"/api/photos/{id}.jpg");
        var text = Encoding.Latin1.GetString(bytes);
        Assert.DoesNotContain("47.1234N", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Exif", text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(6, true)] // a quarter turn to the right: what was left is on top
    [InlineData(8, false)]
    public async Task A_photo_that_was_held_on_its_side_is_turned(byte held, bool redOnTop)
    {
        var (_, photos) = await AddAsync(20 + held, WithExif(Picture(80, 40), held));
        using var shown = await ShownAsync(photos);
        Assert.Equal((40, 80), (shown.Width, shown.Height));
        Assert.Equal(redOnTop, shown.GetPixel(20, 5).Red > 128);
    }

    [Fact]
    public async Task A_large_photo_is_kept_small_and_shown_smaller()
    {
        var (_, photos) = await AddAsync(1, Picture(5000, 2500));
        Assert.Equal((1600, 800), ((int)photos![0]!["width"]!, (int)photos[0]!["height"]!));
        using var small = await ShownAsync(photos, "/small.jpg");
        Assert.Equal((160, 80), (small.Width, small.Height));
        var (_, png) = await AddAsync(1, Picture(300, 200, SKEncodedImageFormat.Png), "image/png");
        Assert.Equal(2, png!.AsArray().Count);
    }

    [Fact]
    public async Task What_is_no_photo_or_too_many_are_refused_in_words()
    {
        Assert.Contains(
            "cannot be read as a picture",
            (string)(await AddAsync(2, "not a picture"u8.ToArray())).Body!["detail"]!,
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.BadRequest, (await AddAsync(2, [0xFF, 0xD8, 0xFF])).Status);
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await AddAsync(2, Picture(8, 8), "text/plain")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await AddAsync(999_999, Picture(8, 8))).Status);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, (await AddAsync(2, new byte[(12 * 1024 * 1024) + 1])).Status);
        // an image that says it is vast, in a few bytes
        byte[] vast = [.. Picture(8, 8, SKEncodedImageFormat.Png)];
        (vast[16], vast[17], vast[20], vast[21]) = (0, 1, 0, 1);
        Assert.Equal(HttpStatusCode.BadRequest, (await AddAsync(2, vast, "image/png")).Status);
        for (var i = 0; i < 4; i++)
            Assert.Equal(HttpStatusCode.OK, (await AddAsync(3, Picture(8, 8))).Status);
        var (status, problem) = await AddAsync(3, Picture(8, 8));
        Assert.Equal(HttpStatusCode.BadRequest, status);
        Assert.Contains("at most 4 photos", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_photo_can_be_deleted_and_goes_along_with_its_household()
    {
        var (_, photos) = await AddAsync(4, Picture(60, 30));
        var text = await server.Http.GetStringAsync("/api/exchange/household.json");
        Assert.Contains("\"shotId\":4,", text, StringComparison.Ordinal);
        var id = (int)photos![0]!["id"]!;
        var (_, left) = await server.SendAsync(HttpMethod.Delete, $"/api/photos/{id}", null);
        Assert.Empty(left!.AsArray());
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Get, $"/api/photos/{id}.jpg", null)).Status);
    }
}
