namespace Daxlin.Service.Storage;

/// <summary>The system's clock in whole microseconds: what is hashed, and stored, is the same when it comes back from whichever database.</summary>
internal sealed class StoredClock : TimeProvider
{
    public override DateTimeOffset GetUtcNow()
    {
        var now = base.GetUtcNow();
        return now.AddTicks(-(now.Ticks % TimeSpan.TicksPerMicrosecond));
    }
}
