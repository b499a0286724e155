import django.db.models.deletion
from django.db import migrations, models

ENDED = ("done", "failed", "cancelled")


def give_jobs(apps, schema_editor):
    """What was unfinished is made anew: its pieces that are there are found by their content."""
    Export, Job = apps.get_model("exports", "Export"), apps.get_model("jobs", "Job")
    for export in Export.objects.all():
        job = Job(owner_id=export.owner_id, kind="film", priority=20)
        job.subject = str(job.id)
        job.state = export.state if export.state in ENDED else "waiting"
        job.share = 1.0 if export.state == "done" else 0.0
        job.problem = export.problem
        job.started_at, job.finished_at = export.started_at, export.finished_at
        job.save()
        export.job = job
        export.save(update_fields=["job"])


class Migration(migrations.Migration):

    dependencies = [
        ('exports', '0001_initial'),
        ('jobs', '0001_jobs'),
    ]

    operations = [
        migrations.AddField(
            model_name='export',
            name='job',
            field=models.OneToOneField(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='jobs.job'),
        ),
        migrations.RunPython(give_jobs, migrations.RunPython.noop),
        migrations.AlterField(
            model_name='export',
            name='job',
            field=models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='jobs.job'),
        ),
        migrations.RemoveField(model_name='export', name='attempts'),
        migrations.RemoveField(model_name='export', name='finished_at'),
        migrations.RemoveField(model_name='export', name='heartbeat'),
        migrations.RemoveField(model_name='export', name='problem'),
        migrations.RemoveField(model_name='export', name='started_at'),
        migrations.RemoveField(model_name='export', name='state'),
        migrations.DeleteModel(name='Piece'),
    ]
