using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Daxlin.Service.Posting;

/// <summary>Some stored records in UTF-8, one behind the other in memory that is used again for the next.</summary>
/// <remarks>
/// A run reads half a gigabyte of them for 10,000 invoices. As texts each would be twice as large, and be copied once more to be hashed; as
/// arrays of their own they would take the collector as long as half of the reading.
/// </remarks>
internal sealed class RecordBuffer
{
    private const int FirstSize = 1 << 20;

    private readonly Dictionary<int, (int At, int Length)> places = [];
    private byte[] bytes = new byte[FirstSize];
    private int used;

    public ReadOnlySpan<byte> this[int id] => places.TryGetValue(id, out var place) ? bytes.AsSpan(place.At, place.Length)
        : throw new KeyNotFoundException($"There is no record of invoice {id}.");

    /// <summary>Takes the records of some invoices in the place of those that it holds.</summary>
    public async Task Fill(DaxlinDb db, int[] ids, CancellationToken cancel)
    {
        places.Clear();
        used = 0;
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
#pragma warning disable CA2100 // Numbers: databases differ in how lists are given.
            command.CommandText = $"SELECT \"Id\", \"Record\" FROM \"InvoiceRecords\" WHERE \"Id\" IN ({string.Join(',', ids.DefaultIfEmpty(0))})";
#pragma warning restore CA2100
            await using var reader = await command.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
            {
                // In the order of the columns: a reader that goes on does not come back.
                var id = reader.GetInt32(0);
                await using var record = reader.GetStream(1);
                Take(id, record);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private void Take(int id, Stream record)
    {
        var length = (int)record.Length;
        if (bytes.Length - used < length)
            Array.Resize(ref bytes, Math.Max(used + length, bytes.Length * 2));
        record.ReadExactly(bytes, used, length);
        places[id] = (used, length);
        used += length;
    }
}
