using System.Text;
using System.Text.Json;
using Palaestra.Exchange.HomeCodes;
using Palaestra.Exchange.Tests.Given;

namespace Palaestra.Exchange.Tests;

/// <summary>The log of a home programme, as the page packs it and the server reads it.</summary>
public class HomePackTests
{
    private static readonly JsonElement Written = JsonDocument
        .Parse(Docs.Text("..", "client", "src", "given", "homeCodes.json"))
        .RootElement;

    private static byte[] Bytes(string name) => Written.GetProperty(name).GetBytesFromBase64();

    private static HomeSeal Seal => new(Bytes("secret"));

    public static TheoryData<int> Logs =>
        [.. Enumerable.Range(0, Written.GetProperty("logs").GetArrayLength())];

    private static JsonElement Log(int index) => Written.GetProperty("logs")[index];

    private static string[] Codes(int index) =>
        [.. Log(index).GetProperty("codes").EnumerateArray().Select(code => code.GetString()!)];

    [Theory]
    [InlineData("AB", "BB8")]
    [InlineData("Hello!!", "%69 VD92EX0")]
    [InlineData("base-45", "UJCLQE7W581")]
    [InlineData("ietf!", "QED8WEX0")]
    public void Letters_are_those_of_the_examples_of_RFC_9285_from_memory(string text, string letters)
    {
        Assert.Equal(letters, Base45.Write(Encoding.ASCII.GetBytes(text)));
        Assert.Equal(text, Encoding.ASCII.GetString(Base45.Read(letters)!));
    }

    [Theory]
    [InlineData("GGW")]
    [InlineData("A")]
    [InlineData("ABCD")]
    [InlineData("ab")]
    [InlineData("::")]
    public void Letters_that_are_no_bytes_are_refused(string letters) => Assert.Null(Base45.Read(letters));

    [Fact]
    public void A_token_comes_back_as_it_was_signed_and_gives_its_page_the_same_key()
    {
        HomeToken token = new(
            Written.GetProperty("page").GetGuid(),
            Written.GetProperty("revision").GetInt32(),
            DateOnly.Parse(
                Written.GetProperty("expires").GetString()!,
                System.Globalization.CultureInfo.InvariantCulture
            )
        );
        var signed = Seal.Write(token);
        Assert.Equal(Bytes("token"), signed);
        Assert.Equal(token, Seal.Read(signed));
        Assert.Equal(Bytes("key"), Seal.KeyOf(signed));
        Assert.NotEqual(Seal.KeyOf(signed), new HomeSeal(new byte[32]).KeyOf(signed));
    }

    [Theory]
    [MemberData(nameof(Logs))]
    public void What_the_page_packs_is_read_to_the_last_set(int index)
    {
        var joined = HomeCodeParts.Join([.. Codes(index).Reverse()]).Value!;
        Assert.Equal(Log(index).GetProperty("bytes").GetBytesFromBase64(), joined);
        var read = HomePack.Read(joined, Seal).Value!;
        var told = Log(index).GetProperty("diary");
        var days = told.GetProperty("days").EnumerateObject().ToList();
        Assert.Equal(days.Count, read.Days.Count);
        foreach (var (day, packed) in days.OrderBy(d => d.Name, StringComparer.Ordinal).Zip(read.Days))
        {
            Assert.Equal(
                day.Name,
                packed.Day.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
            );
            Assert.Equal(
                (Number(day.Value, "pain"), Number(day.Value, "morning")),
                (packed.Pain, packed.Morning)
            );
            Assert.Equal(day.Value.GetProperty("stopped").GetBoolean(), packed.Stopped);
            Assert.Equal(
                day.Value.GetProperty("sets")
                    .EnumerateArray()
                    .OrderBy(s => s.GetProperty("column").GetInt32())
                    .ThenBy(s => s.GetProperty("set").GetInt32())
                    .Select(s => new PackedSet(
                        s.GetProperty("column").GetInt32(),
                        s.GetProperty("reps").GetInt32(),
                        Number(s, "effort"),
                        Number(s, "pain")
                    )),
                packed.Sets
            );
        }
    }

    private static int? Number(JsonElement of, string name) =>
        of.GetProperty(name) is { ValueKind: JsonValueKind.Number } number ? number.GetInt32() : null;

    private static string Refusal(params string[] codes) => HomeCodeParts.Join(codes).Errors[0].Message.Id;

    [Fact]
    public void Parts_that_are_missing_mixed_or_none_are_told()
    {
        var codes = Codes(3);
        Assert.True(codes.Length > 1);
        Assert.Equal("home-code.missing", Refusal(codes[0]));
        Assert.Equal("home-code.mixed", Refusal(codes[0], Codes(1)[0]));
        Assert.Equal("home-code.unreadable", Refusal());
        Assert.Equal("home-code.unreadable", Refusal("https://clinic.example"));
        Assert.Equal("home-code.unreadable", Refusal("PH121ABCDQED8WEX0"));
        Assert.Equal("home-code.unreadable", Refusal(Codes(1)[0] + "?"));
        Assert.Equal("home-code.unreadable", Refusal([.. Enumerable.Repeat(codes[0], 99)]));
        Assert.True(HomeCodeParts.Join([.. codes, .. codes]).IsValid);
    }

    private static string Refusal(byte[] bytes, HomeSeal? seal = null) =>
        HomePack.Read(bytes, seal ?? Seal).Errors[0].Message.Id;

    [Fact]
    public void No_bit_can_be_turned_and_nothing_cut_off_or_put_on()
    {
        var bytes = Log(1).GetProperty("bytes").GetBytesFromBase64();
        Assert.True(HomePack.Read(bytes, Seal).IsValid);
        for (var bit = 0; bit < 8 * bytes.Length; bit++)
        {
            var turned = (byte[])bytes.Clone();
            turned[bit / 8] ^= (byte)(1 << bit % 8);
            Assert.False(HomePack.Read(turned, Seal).IsValid);
        }
        for (var length = 0; length < bytes.Length; length++)
        {
            Assert.False(HomePack.Read(bytes[..length], Seal).IsValid);
        }
        Assert.False(HomePack.Read([.. bytes, 0], Seal).IsValid);
        Assert.Equal("home-code.foreign", Refusal(bytes, new HomeSeal(new byte[32])));
        Assert.Equal("home-code.altered", Refusal([.. bytes[..^1], (byte)(bytes[^1] ^ 1)]));
        Assert.Equal("home-code.newer", Refusal([2, .. bytes[1..]]));
        Assert.Equal("home-code.unreadable", Refusal([]));
    }

    [Fact]
    public void Whoever_holds_a_page_can_write_days_that_do_not_add_up_and_they_are_refused()
    {
        var token = Bytes("token");
        byte[] Sealed(byte[] days, byte count)
        {
            byte[] log = [1, .. token, count, .. days];
            return [.. log, .. HomeSeal.Of(Seal.KeyOf(token), log)];
        }
        Assert.True(HomePack.Read(Sealed([9, 200, 0xFF, 0, 0], 1), Seal).IsValid);
        // A set that is said and is not there; a day more than said; a day less.
        Assert.Equal("home-code.unreadable", Refusal(Sealed([9, 200, 0xFF, 0, 1], 1)));
        Assert.Equal("home-code.unreadable", Refusal(Sealed([9, 200, 0xFF, 0, 0], 0)));
        Assert.Equal("home-code.unreadable", Refusal(Sealed([9, 200, 0xFF, 0, 0], 2)));
    }
}
