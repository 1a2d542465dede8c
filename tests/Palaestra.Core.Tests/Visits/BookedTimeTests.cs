using CsCheck;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

/// <summary>Which visits cannot both be kept.</summary>
public class BookedTimeTests
{
    private static readonly Guid Ann = Guid.NewGuid();
    private static readonly Guid Ben = Guid.NewGuid();
    private static readonly Guid Ines = Guid.NewGuid();
    private static readonly DateTimeOffset Nine = new(2026, 10, 25, 9, 0, 0, TimeSpan.Zero);

    private static BookedTime At(int minute, Guid client, Guid? with, int long_ = 30) =>
        new(Guid.NewGuid(), client, with, Nine.AddMinutes(minute), long_);

    [Theory]
    [InlineData(30, false)]
    [InlineData(29, true)]
    [InlineData(0, true)]
    [InlineData(-29, true)]
    [InlineData(-30, false)]
    public void As_one_ends_the_next_may_begin(int minute, bool collides) =>
        Assert.Equal(collides, At(0, Ann, Ines).Collisions([At(minute, Ben, Ines)]).Count == 1);

    [Fact]
    public void Nobody_in_particular_collides_with_nobody_but_a_client_is_in_one_place()
    {
        Assert.Empty(At(0, Ann, null).Collisions([At(0, Ben, null)]));
        Assert.Empty(At(0, Ann, Ines).Collisions([At(0, Ben, null)]));
        Assert.Single(At(0, Ann, null).Collisions([At(0, Ann, Ines)]));
        var same = At(0, Ann, Ines);
        Assert.Empty(same.Collisions([same with { From = same.From.AddMinutes(5) }]));
    }

    /// <summary>In the night the clocks go back an hour comes twice: what counts is the moment, not the wall.</summary>
    [Fact]
    public void Two_at_the_same_time_on_the_wall_an_hour_apart_do_not_collide()
    {
        var first = new BookedTime(
            Guid.NewGuid(),
            Ann,
            Ines,
            new(2026, 10, 25, 2, 30, 0, TimeSpan.FromHours(2)),
            30
        );
        var second = new BookedTime(
            Guid.NewGuid(),
            Ben,
            Ines,
            new(2026, 10, 25, 2, 30, 0, TimeSpan.FromHours(1)),
            30
        );
        Assert.Empty(first.Collisions([second]));
    }

    [Fact]
    public void It_is_the_same_from_both_sides() =>
        Gen.Select(Gen.Int[-120, 120], Gen.Int[5, 90], Gen.Int[5, 90])
            .Sample(
                (apart, one, other) =>
                {
                    var (a, b) = (At(0, Ann, Ines, one), At(apart, Ben, Ines, other));
                    return a.Collisions([b]).Count == b.Collisions([a]).Count;
                }
            );
}
