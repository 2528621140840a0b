using Daxlin.Service;
using Daxlin.Service.Backups;
using Daxlin.Service.Storage;
using Daxlin.Service.Trial;
using Daxlin.Service.Web;
using Daxlin.Service.Work;

if (args is [ReaderProcess.Argument])
    return ReaderProcess.Run();
if (args is [TemplateTrial.Argument, .. var trial])
    return TemplateTrial.Run(trial);
if (args is [FileDraft.Argument, .. var drafted])
    return FileDraft.Run(drafted);
if (args is [DocumentWords.Argument, .. var shown])
    return DocumentWords.Run(shown);
if (args is [OpenApiDocument.Argument, var path])
    return await OpenApiDocument.Write(path);
if (args is [DataCheck.Argument, .. var which])
    return await DataCheck.Run(which);

if (args is [BackupCommand.Argument, .. var backedUp])
    return await BackupCommand.Run(backedUp);
if (args is [RestoreCommand.Argument, .. var restored])
    return await RestoreCommand.Run(restored);

try
{
    var settings = ServiceSettings.Parse(args);
    await using var service = await RunningService.Start(settings);
    Console.WriteLine($"Daxlin listens on {service.Address} with {settings.Storing}");
    if (service.FirstLink is { } link)
        Console.WriteLine($"Nobody has a password here yet. The first administrator begins with this link, which works once and for a day:\n  {service.Address}{link}");
    if (settings.EndsWithInput)
    {
        _ = Task.Run(() =>
        {
            while (Console.In.Read() >= 0)
            {
                // Nothing is said on the input; only its end matters.
            }
            service.Stop();
        });
    }
    await service.UntilEnded();
    return 0;
}
catch (SettingsException error)
{
    Console.Error.WriteLine(error.Message);
    return 2;
}
catch (IOException error) when (error.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
{
    Console.Error.WriteLine($"The port is taken by another program. Choose another with --port.");
    return 3;
}
catch (Exception error) when (StorageFaults.Of(error) is var (_, _, sentence))
{
    Console.Error.WriteLine(sentence);
    return 4;
}
