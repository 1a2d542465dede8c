using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

public class PracticeModelTests
{
    private static readonly PracticeModel Model = Content.Library.Practice;

    public static TheoryData<string, PracticeModel> Wrong { get; } =
        new()
        {
            { "cleanShare", Model with { CleanShare = 1 } },
            { "leastMillimetres", Model with { LeastMillimetres = 0 } },
            { "degreeStep", Model with { DegreeStep = 1 } },
            { "fairView", Model with { FairView = 1.1 } },
            { "fairAxis", Model with { FairAxis = -0.1 } },
            { "topBelow", Model with { TopBelow = 1.1 } },
            { "narrow", Model with { Narrow = double.NaN } },
            { "enoughClips", Model with { EnoughClips = 1 } },
            { "clinicClips", Model with { ClinicClips = 3 } },
            { "clinicNumbers", Model with { ClinicNumbers = 3 } },
            { "refreshDays", Model with { RefreshDays = 0 } },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_cannot_be_gone_by_is_told_with_its_field(string field, PracticeModel model) =>
        Assert.Equal($"practice.json practice.{field}", Assert.Single(model.Errors()).Field);

    [Fact]
    public void Ours_can_be_gone_by() => Assert.Empty(Model.Errors());
}
