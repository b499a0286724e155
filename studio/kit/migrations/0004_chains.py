
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('kit', '0003_motions'),
    ]

    operations = [
        migrations.AlterField(
            model_name='preset',
            name='kind',
            field=models.CharField(choices=[('grade', 'Grade'), ('effects', 'Effects'), ('element', 'Element'), ('motion', 'Motion'), ('chain', 'Chain')], max_length=20),
        ),
    ]
