using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Made-up invoices to learn on, where there are none.</summary>
public class DemoTests
{
    [Fact]
    public async Task An_empty_installation_takes_the_made_up_invoices_in_once_and_leaves_one_vendor_to_be_made()
    {
        await using var service = await ServiceUnderTest.Start(samples: Repository.Samples);
        Assert.True((bool)(await service.Get("demo"))["isAtHand"]!);
        var (status, taken) = await service.Post("demo", new JsonObject());
        Assert.Equal((201, 24, 3), (status, (int)taken["documents"]!, (int)taken["templates"]!));
        var batch = await service.UntilDone((int)taken["batch"]!);
        Assert.Equal((6, 1), ((int)batch["invoices"]!["unplaced"]!, (int)batch["unplacedVendors"]!));
        Assert.Equal((409, "not-empty"), await Again());
        Assert.Equal(3, (await service.All("templates")).Count);

        async Task<(int, string?)> Again()
        {
            var (refused, problem) = await service.Post("demo", new JsonObject());
            return (refused, (string?)problem["code"]);
        }
    }

    [Fact]
    public async Task Without_made_up_invoices_none_are_offered()
    {
        await using var service = await ServiceUnderTest.Start();
        Assert.False((bool)(await service.Get("demo"))["isAtHand"]!);
        Assert.Equal(404, (await service.Post("demo", new JsonObject())).Status);
    }
}
