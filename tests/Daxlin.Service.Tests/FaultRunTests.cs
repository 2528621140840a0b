using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>
/// Kills and stops at moments drawn by a seed, during start, intake, capture, approval and posting. A checker that knows
/// what was acknowledged looks afterwards: nothing of it is lost, nothing is there twice, nothing is half done.
/// </summary>
/// <remarks><c>bench/faults</c> runs the same for long: DAXLIN_FAULT_ROUNDS says how many, DAXLIN_FAULT_SEED from where.</remarks>
public class FaultRunTests
{
    /// <summary>Files that a start makes one after the other.</summary>
    private static readonly string?[] MomentsOfStart = [null, "in-use", "daxlin.db", "daxlin.db-wal", "daxlin-*.log"];

    [Fact]
    public async Task Nothing_acknowledged_is_lost_and_nothing_is_done_twice_whenever_the_service_dies()
    {
        var (run, data) = (new FaultRun(), Directory.CreateTempSubdirectory("daxlin-faults-").FullName);
        for (var round = 0; round < FaultRun.Rounds; round++)
        {
            await ServiceUnderTest.KillWhileStarting(data, MomentsOfStart[run.Random.Next(MomentsOfStart.Length)]);
            var service = await ServiceUnderTest.Start(data, apart: true);
            if (round == 0)
                await service.SaveTemplates(Repository.Samples);
            await run.Check(service);
            var acts = run.Random.Next(2, 8);
            for (var act = 0; act < acts; act++)
                await run.Act(service);
            // The last act is under way when the service dies.
            var last = run.ActInVain(service);
            if (run.Random.Next(3) == 0)
                Assert.Equal(0, await service.Terminate());
            else
                await service.Kill();
            await last;
        }
        await using var settled = await ServiceUnderTest.Start(data);
        await run.Settle(settled);
    }

    [Fact]
    public async Task Nor_by_two_services_on_one_database_whichever_dies_and_when_its_server_does()
    {
        await using var server = await PostgresServer.Start();
        var (run, data, store) = (new FaultRun(), Directory.CreateTempSubdirectory("daxlin-faults-").FullName, await server.Make("daxlin"));
        Task<ServiceUnderTest> Start(string node) => ServiceUnderTest.Start(data, apart: true, arguments: ["--store", store, "--node", node]);
        string[] names = ["one", "two"];
        ServiceUnderTest[] nodes = [await Start(names[0]), await Start(names[1])];
        await nodes[0].SaveTemplates(Repository.Samples);
        for (var round = 0; round < FaultRun.Rounds; round++)
        {
            var acts = run.Random.Next(2, 8);
            for (var act = 0; act < acts; act++)
                await run.Act(nodes[run.Random.Next(2)]);
            var dying = run.Random.Next(2);
            var last = Task.WhenAll(run.ActInVain(nodes[dying]), run.ActInVain(nodes[1 - dying]));
            if (run.Random.Next(4) == 0)
            {
                await server.Restart();
                await last;
                foreach (var node in nodes)
                    await node.UntilWell();
            }
            else
            {
                await nodes[dying].Kill();
                await last;
                await run.Check(nodes[1 - dying]);
                nodes[dying] = await Start(names[dying]);
            }
            await run.Check(nodes[dying]);
        }
        await run.Settle(nodes[0]);
        await run.Check(nodes[1]);
        await nodes[1].Terminate();
        await nodes[0].DisposeAsync();
    }
}
