namespace Daxlin.Service.Work;

/// <summary>Which documents wait for their capture, batch by batch in turn, so that a batch of ten does not wait for one of ten thousand.</summary>
/// <remarks>What waits is in the database, so nothing is lost with a queue.</remarks>
public abstract class CaptureQueue : IDisposable
{
    /// <summary>Takes over what waits from before.</summary>
    /// <returns>How many documents that are.</returns>
    public abstract Task<int> Begin(CancellationToken cancel);

    /// <summary>A document waits, as the database says by now.</summary>
    public abstract void Add(int batch, int intake);

    /// <summary>The next document of the batch whose turn it is; waits if there is none.</summary>
    public abstract Task<(int Batch, int Intake)> Next(CancellationToken cancel);

    /// <summary>Nobody here works on a document any more, whatever came of it.</summary>
    public abstract Task End(int intake, CancellationToken cancel);

    public abstract void Dispose();
}
